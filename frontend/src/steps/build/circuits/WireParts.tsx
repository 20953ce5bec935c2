/** Wire and gear by the piece: metres with slack, conduit, breakers, connectors. */
import type { Schemas } from '@/api/client';
import { saveTable } from '@/charts/TableBehind';
import { useJob } from '@/plan/JobContext';
import { Button } from '@/ui/Button';
import { figure } from '@/units/format';

const FT = 0.3048;

export function WireParts({ found }: { found: Schemas['CircuitsView'] }) {
  const { job } = useJob();
  if (found.parts.length === 0) return null;
  const told = (count: number, unit: string) =>
    unit === 'm' && job.unit === 'ft'
      ? `${figure(Math.ceil(count / FT))} ft`
      : `${figure(count)}${unit === 'm' ? ' m' : ''}`;
  return (
    <>
      <table className="mt-4 w-full max-w-[860px] border-collapse text-sm">
        <caption className="text-left text-base font-semibold">Wire and gear</caption>
        <tbody>
          {found.parts.map((part) => (
            <tr key={part.name} className="border-b border-rule">
              <th scope="row" className="py-1 text-left font-medium">
                {part.name}
              </th>
              <td className="text-right font-figure whitespace-nowrap">
                {told(part.count, part.unit)}
              </td>
              <td className="pl-3 text-xs text-ink-2">{part.note}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {found.untaken.length > 0 && (
        <p className="mt-1 text-xs text-ink-2">
          Left out, their length is not known: {found.untaken.join(', ')}.
        </p>
      )}
      <p className="mt-2">
        <Button
          onClick={() =>
            saveTable({
              title: `${job.name} wire and gear`,
              columns: ['part', 'count', 'unit', 'note'],
              rows: found.parts.map((p) => [p.name, p.count, p.unit, p.note]),
            })
          }
        >
          Wire and gear (CSV)
        </Button>
      </p>
    </>
  );
}
