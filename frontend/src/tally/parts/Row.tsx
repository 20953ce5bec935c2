/** A row of the Tally: a name, a figure, and beside it what it differs by. */
import { Term } from '@/ui/Term';

interface RowProps {
  label: string;
  value: string;
  aside?: string | undefined;
}

export function Row({ label, value, aside = '' }: RowProps) {
  return (
    <div className="flex items-baseline justify-between gap-2 py-[3px] text-sm">
      <span>
        <Term>{label}</Term>
      </span>
      <span className="font-figure text-base font-semibold">
        {value}
        {aside && <span className="ml-1 text-xs text-ink-2">{aside}</span>}
      </span>
    </div>
  );
}
