/** What is wrong with a module and what can be done: keep it with a reason, or put it back. */
import type { Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { Button } from '@/ui/Button';
import { TypedField } from '@/ui/TypedField';

interface TroubleNoteProps {
  /** The modules it is about. */
  moduleIds: string[];
  troubles: Schemas['ModuleTrouble'][];
  nameOf: (id: string) => string;
  asking: boolean;
  onAsk: (asking: boolean) => void;
}

const SHOWN = 2;

export function TroubleNote({ moduleIds, troubles, nameOf, asking, onAsk }: TroubleNoteProps) {
  const { option, edit, act } = useJob();
  if (troubles.length === 0) return null;
  const keep = (reason: string) =>
    ({ kind: 'keep-modules', option_id: option.id, module_ids: moduleIds, reason }) as const;
  const kept = troubles.find((t) => t.kept_because)?.kept_because ?? '';
  const possible = troubles.every((t) => !t.impossible);
  return (
    <div
      role="status"
      className={`absolute bottom-2 left-3 z-20 max-w-[560px] rounded-md border bg-sheet px-2.5 py-1.5 text-sm ${kept ? 'border-warn' : 'border-stop'}`}
    >
      {troubles.slice(0, SHOWN).map((t) => (
        <p key={t.module_id}>
          <b className="font-semibold">{nameOf(t.module_id)}</b>: {t.told}.
        </p>
      ))}
      {troubles.length > SHOWN && <p className="text-ink-2">and {troubles.length - SHOWN} more.</p>}
      <div className="mt-1 flex items-center gap-2">
        {kept && <span className="text-warn">Kept: {kept}</span>}
        {asking ? (
          <TypedField
            label="Why it is kept"
            value={kept}
            placeholder="why, and who agreed; it is printed on the sheet"
            width={330}
            align="left"
            focusNow
            noteAbove
            commit={(reason) => edit(keep(reason)).then(() => onAsk(false))}
            onLeave={() => onAsk(false)}
          />
        ) : (
          possible && (
            <Button hint="K" onClick={() => onAsk(true)}>
              {kept ? 'Change the reason' : 'Keep anyway'}
            </Button>
          )
        )}
        {kept && !asking && <Button onClick={() => act(keep(''))}>Take it back</Button>}
      </div>
    </div>
  );
}
