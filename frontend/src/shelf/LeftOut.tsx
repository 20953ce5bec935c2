/** Own datasheets that are kept but cannot be used: which, why, and a way to take them off. */
import type { Schemas } from '@/api/client';
import { removeSheet, type SheetKind } from '@/api/shelfQueries';
import { Button } from '@/ui/Button';
import { useNotify } from '@/ui/Notices';

interface LeftOutProps {
  sheets: readonly Schemas['LeftOut'][];
  onRemoved: () => void;
}

export function LeftOut({ sheets, onRemoved }: LeftOutProps) {
  const notify = useNotify();
  if (sheets.length === 0) return null;
  const remove = ({ kind, id }: Schemas['LeftOut']) =>
    removeSheet(kind as SheetKind, id).then(onRemoved, (error: Error) =>
      notify({ text: error.message, tone: 'stop' }),
    );
  return (
    <section
      aria-label="Own datasheets left out"
      className="m-3 max-h-[160px] shrink-0 overflow-y-auto rounded-md border border-warn bg-sheet p-3 text-sm"
    >
      <p className="font-medium text-warn">
        {sheets.length} of your own {sheets.length === 1 ? 'datasheet is' : 'datasheets are'} left
        out. Type {sheets.length === 1 ? 'it' : 'them'} again, or take a corrected file.
      </p>
      <ul>
        {sheets.map((sheet) => (
          <li key={`${sheet.kind} ${sheet.id}`} className="mt-1 flex items-center gap-3">
            <span className="grow">
              <b>{sheet.id.replace(/^own-/, '')}</b> ({sheet.kind}): {sheet.why}
            </span>
            <Button onClick={() => void remove(sheet)}>Take it off</Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
