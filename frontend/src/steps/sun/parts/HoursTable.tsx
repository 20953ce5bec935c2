/** Month by hour: what shade takes of the light, of the array or of a module. */
import { useQuery } from '@tanstack/react-query';
import { shadeTint } from '@/drawing/shadeTint';
import { useJob } from '@/plan/JobContext';
import { Failed } from '@/ui/States';
import { figure, MONTHS } from '@/units/format';
import { shadeHoursQuery } from '../queries';

interface HoursTableProps {
  moduleId: string;
  name: string;
  /** The moment shown elsewhere: its month and hour are framed. */
  month: number;
  hour: number;
}

export function HoursTable({ moduleId, name, month, hour }: HoursTableProps) {
  const { at } = useJob();
  const { data, error } = useQuery(shadeHoursQuery(at, moduleId));
  if (error) return <Failed error={error} tight />;
  if (!data)
    return (
      <p role="status" className="text-sm text-ink-2">
        What shade takes from {name} in each hour of each month is being counted.
      </p>
    );
  const lit = data.lost_frac;
  const hours = Array.from({ length: 24 }, (_, h) => h).filter((h) =>
    lit.some((row) => row[h] !== null && row[h] !== undefined),
  );
  const worst = Math.max(0.02, ...lit.flatMap((row) => row.map((v) => v ?? 0)));
  return (
    <table
      className="border-separate border-spacing-px text-xs"
      aria-label={`Shade on ${name} by month and hour, per cent`}
    >
      <thead>
        <tr>
          <th className="pr-1 text-left font-normal text-ink-2">%</th>
          {hours.map((h) => (
            <th key={h} scope="col" className="w-[26px] font-normal leading-none text-ink-2">
              {h}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {MONTHS.map((title, m) => (
          <tr key={title}>
            <th scope="row" className="pr-1 text-left font-normal leading-none text-ink-2">
              {title}
            </th>
            {hours.map((h) => {
              const lost = lit[m]?.[h];
              const tint = shadeTint(lost ?? 0, worst);
              const now = m === month && h === hour;
              return (
                <td
                  key={h}
                  className={`h-[12px] text-center font-figure leading-none ${now ? 'outline-2 outline-copper' : ''}`}
                  style={typeof lost === 'number' ? { background: tint.fill, color: tint.ink } : {}}
                >
                  {typeof lost === 'number' ? figure(lost * 100) : ''}
                </td>
              );
            })}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
