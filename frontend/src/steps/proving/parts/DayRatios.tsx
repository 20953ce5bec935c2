/** Every day of a log by what it made of what was due; a day is picked to see its course. */
import { scaleLinear, scaleTime } from 'd3-scale';
import type { Schemas } from '@/api/client';
import { Chart } from '@/charts/Chart';
import { Fitted } from '@/ui/Fitted';
import { day as dayTold, figure, MONTHS } from '@/units/format';

const PAD = { left: 40, right: 10, top: 8, bottom: 20 };
const HIGH_PX = 170;
const FILL: Record<Schemas['LogStanding'], string> = {
  fine: 'var(--color-patina)',
  look: 'var(--color-warn)',
  act: 'var(--color-stop)',
  'not judged': 'var(--color-ink-3)',
};
const LEVELS = [0, 0.25, 0.5, 0.75, 1, 1.25];
const MOST = 1.3;

interface DayRatiosProps {
  found: Schemas['ProductionView'];
  day: string | null;
  onDay: (day: string) => void;
}

export function DayRatios({ found, day, onDay }: DayRatiosProps) {
  return (
    <section aria-label="Days" className="mt-3">
      <h2 className="text-xs text-ink-2">
        Made of what was due, day by day. Shaded: within {figure(found.fine_band * 100)} %. Not
        judged is low on the line. Click a day for its course.
      </h2>
      <Fitted mostPx={1100}>
        {(widthPx) => <Dots found={found} day={day} onDay={onDay} widthPx={widthPx} />}
      </Fitted>
    </section>
  );
}

function Dots({ found, day, onDay, widthPx }: DayRatiosProps & { widthPx: number }) {
  const x = scaleTime(
    [new Date(found.first), new Date(found.last)],
    [PAD.left + 4, widthPx - PAD.right - 4],
  );
  const judged = found.days.flatMap((d) => (d.ratio == null ? [] : [d.ratio]));
  const least = Math.min(0.75, Math.floor(Math.min(...judged, 1) * 4) / 4);
  const y = scaleLinear([least, MOST], [HIGH_PX - PAD.bottom, PAD.top]).clamp(true);
  const at = (iso: string) => x(new Date(iso));
  const band = { high: y(1 + found.fine_band), low: y(1 - found.fine_band) };
  const pick = (xPx: number) => {
    const nearest = found.days.reduce((best, d) =>
      Math.abs(at(d.day) - xPx) < Math.abs(at(best.day) - xPx) ? d : best,
    );
    onDay(nearest.day);
  };
  return (
    <Chart
      label="Made of what was due, day by day"
      widthPx={widthPx}
      heightPx={HIGH_PX}
      onClick={pick}
      readings={found.days.map((d) => ({
        xPx: at(d.day),
        yPx: y(d.ratio ?? least),
        told: `${dayTold(d.day)}: ${figure(d.made_kwh, 1)} kWh, ${d.ratio == null ? 'not judged' : `${figure(d.ratio * 100)} % of what was due`}${d.left_out ? `; ${d.left_out}` : ''}`,
      }))}
    >
      <rect
        x={PAD.left}
        width={widthPx - PAD.left - PAD.right}
        y={band.high}
        height={band.low - band.high}
        fill="var(--color-patina-wash)"
      />
      <g fontSize="12" fill="var(--color-ink-2)">
        {LEVELS.filter((v) => v >= least).map((v) => (
          <g key={v}>
            <line
              x1={PAD.left}
              x2={widthPx - PAD.right}
              y1={y(v)}
              y2={y(v)}
              stroke="var(--color-rule)"
            />
            <text x={PAD.left - 5} y={y(v) + 4} textAnchor="end">
              {v * 100} %
            </text>
          </g>
        ))}
        {x.ticks(Math.max(2, Math.floor(widthPx / 130))).map((t) => (
          <text key={t.getTime()} x={x(t)} y={HIGH_PX - 5} textAnchor="middle">
            {t.getDate()} {MONTHS[t.getMonth()]}
          </text>
        ))}
      </g>
      {found.days.map((d) => (
        <circle
          key={d.day}
          cx={at(d.day)}
          cy={y(d.ratio ?? least)}
          r={d.day === day ? 5 : 2.6}
          fill={FILL[d.standing]}
          fillOpacity={d.ratio == null ? 0.5 : 1}
          stroke={d.day === day ? 'var(--color-ink)' : 'none'}
        />
      ))}
    </Chart>
  );
}
