/** Twelve pairs of bills: without an array and with it. */
import { max, min } from 'd3-array';
import { scaleBand, scaleLinear } from 'd3-scale';
import { money } from '@/units/format';
import { Chart } from './Chart';

interface BillBarsProps {
  label: string;
  months: readonly { month: string; beforeCents: number; afterCents: number }[];
  currency: string;
  widthPx: number;
  heightPx: number;
}

const WITHOUT = 'var(--color-field)';
const WITH = 'var(--color-patina)';

export function BillBars({ label, months, currency, widthPx, heightPx }: BillBarsProps) {
  const all = months.flatMap((m) => [m.beforeCents, m.afterCents]);
  const x = scaleBand(
    months.map((m) => m.month),
    [4, widthPx - 4],
  ).padding(0.2);
  const y = scaleLinear([Math.min(0, min(all) ?? 0), max(all) ?? 1], [heightPx - 22, 18]);
  const wide = x.bandwidth() / 2;
  return (
    <figure>
      <Chart
        label={label}
        widthPx={widthPx}
        heightPx={heightPx}
        readings={months.map((m) => ({
          xPx: (x(m.month) ?? 0) + wide,
          yPx: y(Math.max(m.beforeCents, m.afterCents)),
          told: `${m.month}: ${money(m.beforeCents, currency)} without, ${money(m.afterCents, currency)} with`,
        }))}
      >
        {months.map((m) => {
          const left = x(m.month) ?? 0;
          return (
            <g key={m.month} fontSize="12" textAnchor="middle">
              <Bar left={left} wide={wide - 1} from={y(0)} to={y(m.beforeCents)} fill={WITHOUT} />
              <Bar
                left={left + wide}
                wide={wide - 1}
                from={y(0)}
                to={y(m.afterCents)}
                fill={WITH}
              />
              <text x={left + wide} y={heightPx - 6} fill="var(--color-ink-2)">
                {m.month}
              </text>
            </g>
          );
        })}
        <line x1={0} x2={widthPx} y1={y(0)} y2={y(0)} stroke="var(--color-ink-3)" />
      </Chart>
      <figcaption className="flex gap-4 text-xs text-ink-2">
        <Key fill={WITHOUT}>without an array</Key>
        <Key fill={WITH}>with it</Key>
      </figcaption>
    </figure>
  );
}

interface BarProps {
  left: number;
  wide: number;
  from: number;
  to: number;
  fill: string;
}

function Bar({ left, wide, from, to, fill }: BarProps) {
  return (
    <rect x={left} y={Math.min(from, to)} width={wide} height={Math.abs(from - to)} fill={fill} />
  );
}

function Key({ fill, children }: { fill: string; children: string }) {
  return (
    <span className="flex items-center gap-1">
      <svg width="12" height="12" aria-hidden="true">
        <rect width="12" height="12" fill={fill} />
      </svg>
      {children}
    </span>
  );
}
