/** Bars from a middle to a low and a high end, one below the other, widest first. */
import { scaleLinear } from 'd3-scale';
import { money } from '@/units/format';
import { Chart } from './Chart';

interface TornadoProps {
  label: string;
  middleCents: number;
  bars: readonly {
    name: string;
    low: string;
    high: string;
    lowCents: number;
    highCents: number;
  }[];
  currency: string;
  widthPx: number;
}

const ROW_PX = 46;
const TOP_PX = 8;
const SIDE_PX = 96;

export function Tornado({ label, middleCents, bars, currency, widthPx }: TornadoProps) {
  const ends = bars.flatMap((b) => [b.lowCents, b.highCents]);
  const x = scaleLinear(
    [Math.min(middleCents, ...ends), Math.max(middleCents, ...ends)],
    [SIDE_PX, widthPx - SIDE_PX],
  );
  const heightPx = TOP_PX + bars.length * ROW_PX;
  const whole = (cents: number) => money(Math.round(cents / 100) * 100, currency);
  return (
    <Chart
      label={label}
      widthPx={widthPx}
      heightPx={heightPx}
      readings={bars.map((b, n) => ({
        xPx: x(middleCents),
        yPx: TOP_PX + n * ROW_PX + 28,
        told: `${b.name}: ${whole(b.lowCents)} at ${b.low}, ${whole(b.highCents)} at ${b.high}`,
      }))}
    >
      {bars.map((b, n) => {
        const y = TOP_PX + n * ROW_PX;
        const [left, right] =
          b.lowCents <= b.highCents
            ? ([
                [b.lowCents, b.low],
                [b.highCents, b.high],
              ] as const)
            : ([
                [b.highCents, b.high],
                [b.lowCents, b.low],
              ] as const);
        return (
          <g key={b.name} fontSize="12.5">
            <text x={4} y={y + 12} fill="var(--color-ink)" fontWeight="600">
              {b.name}
            </text>
            <rect
              x={x(left[0])}
              y={y + 18}
              width={Math.max(0, x(middleCents) - x(left[0]))}
              height={20}
              fill="var(--color-copper)"
            />
            <rect
              x={x(middleCents)}
              y={y + 18}
              width={Math.max(0, x(right[0]) - x(middleCents))}
              height={20}
              fill="var(--color-patina)"
            />
            <text x={x(left[0]) - 5} y={y + 26} textAnchor="end" fill="var(--color-ink-2)">
              {left[1]}
            </text>
            <text x={x(left[0]) - 5} y={y + 39} textAnchor="end" fill="var(--color-ink)">
              {whole(left[0])}
            </text>
            <text x={x(right[0]) + 5} y={y + 26} fill="var(--color-ink-2)">
              {right[1]}
            </text>
            <text x={x(right[0]) + 5} y={y + 39} fill="var(--color-ink)">
              {whole(right[0])}
            </text>
          </g>
        );
      })}
      <line
        x1={x(middleCents)}
        x2={x(middleCents)}
        y1={0}
        y2={heightPx}
        stroke="var(--color-ink)"
        strokeDasharray="3 3"
      />
    </Chart>
  );
}
