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

export function TroubleNote({ moduleIds, troubles, nameOf, asking, onAsk }: TroubleNoteProps) {
  const { option, edit, act } = useJob();
  if (troubles.length === 0) return null;
  const keep = (reason: string) =>
    ({ kind: 'keep-modules', option_id: option.id, module_ids: moduleIds, reason }) as const;
  const kept = troubles.find((t) => t.kept_because)?.kept_because ?? '';
  const possible = troubles.every((t) => !t.impossible);
  const [first] = troubles;
  const more = troubles.length - 1;
  return (
    <div
      role="status"
      className={`absolute bottom-1.5 left-3 z-20 flex max-w-[calc(100%-100px)] items-center gap-2.5 rounded-md border bg-sheet px-2.5 py-1 text-sm ${kept ? 'border-warn' : 'border-stop'}`}
    >
      <p className="truncate" title={`${first?.told}${kept && `; kept: ${kept}`}`}>
        <b className="font-semibold">{nameOf(first?.module_id ?? '')}</b>: {first?.told}
        {more > 0 && <span className="text-ink-2"> and {more} more</span>}
        {kept && <span className="text-warn">; kept: {kept}</span>}
      </p>
      {asking ? (
        <TypedField
          label="Why it is kept"
          value={kept}
          placeholder="why, and who agreed; it is printed"
          width={230}
          noteAbove
          align="left"
          focusNow
          commit={(reason) => edit(keep(reason)).then(() => onAsk(false))}
          onLeave={() => onAsk(false)}
        />
      ) : (
        possible && (
          <Button hint="K" onClick={() => onAsk(true)}>
            {kept ? 'Reword' : 'Keep anyway'}
          </Button>
        )
      )}
      {kept && !asking && <Button onClick={() => act(keep(''))}>Take it back</Button>}
    </div>
  );
}
