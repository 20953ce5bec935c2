/** Which kinds of lines bear tax and count for credits and rebates. */
import type { Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { Card } from '@/ui/Card';
import { KINDS } from './kinds';

const WAYS: [Schemas['CountsFor'], string][] = [
  ['taxable', 'tax'],
  ['credit', 'credit'],
  ['rebate', 'rebate'],
];

export function CountedCard({ found }: { found: Schemas['MoneyView'] }) {
  const { act } = useJob();
  const kinds = [...new Set(found.lines.map((line) => line.kind))];
  return (
    <Card title="Counts for" className="w-[236px] shrink-0" scrolls>
      <table className="w-full text-sm">
        <thead>
          <tr className="text-xs text-ink-2">
            <th scope="col" className="text-left font-normal">
              Lines
            </th>
            {WAYS.map(([, title]) => (
              <th key={title} scope="col" className="font-normal">
                {title}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {kinds.map((kind) => {
            const line = found.lines.find((l) => l.kind === kind);
            return (
              <tr key={kind}>
                <th scope="row" className="text-left font-normal">
                  {KINDS[kind]}
                </th>
                {WAYS.map(([way, title]) => (
                  <td key={way} className="text-center">
                    <input
                      type="checkbox"
                      aria-label={`${KINDS[kind]} count for ${title}`}
                      className="h-6 w-6 accent-patina"
                      checked={line?.[way] ?? false}
                      onChange={(event) =>
                        void act({
                          kind: 'set-counted',
                          line_kind: kind,
                          counts_for: way,
                          counts: event.target.checked,
                        })
                      }
                    />
                  </td>
                ))}
              </tr>
            );
          })}
        </tbody>
      </table>
    </Card>
  );
}
