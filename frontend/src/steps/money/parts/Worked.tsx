/** Figures that open to their sums. */
import type { Schemas } from '@/api/client';

export function Worked({ worked }: { worked: readonly Schemas['WorkedView'][] }) {
  return (
    <div className="flex flex-col">
      {worked.map(({ name, lines }) => (
        <details key={name} className="border-b border-rule py-0.5 text-sm">
          <summary className="min-h-6 cursor-pointer">{name}</summary>
          <ul className="pb-1 font-figure text-xs text-ink-2">
            {lines.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
        </details>
      ))}
    </div>
  );
}
