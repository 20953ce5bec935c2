/** What came of an equipment file: what was taken, and each line that was not, with why. */
import type { Schemas } from '@/api/client';
import { Button } from '@/ui/Button';
import { figure } from '@/units/format';

interface TakenInProps {
  file: string;
  told: Schemas['TakenIn'];
  onClose: () => void;
}

export function TakenIn({ file, told, onClose }: TakenInProps) {
  return (
    <section
      aria-label="What came of the file"
      role="status"
      className="m-3 max-h-[220px] shrink-0 overflow-y-auto rounded-md border border-rule bg-sheet p-3 text-sm"
    >
      <div className="flex items-center gap-3">
        <p className="grow">
          <b>{file}</b>: {figure(told.added)} new, {figure(told.renewed)} renewed,{' '}
          {figure(told.left_out)} left out.
        </p>
        <Button onClick={onClose}>Close</Button>
      </div>
      {told.problems.length > 0 && (
        <ul className="mt-1 text-xs">
          {told.problems.map((p) => (
            <li key={`${p.place} ${p.why}`}>
              <b>{p.place}</b> {p.why}
            </li>
          ))}
          {told.left_out > told.problems.length && (
            <li>and {figure(told.left_out - told.problems.length)} more</li>
          )}
        </ul>
      )}
    </section>
  );
}
