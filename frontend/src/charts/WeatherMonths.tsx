/** Light on the level by month, beam and diffuse, and the air's range beside it. */
import { max, min } from 'd3-array';
import { scaleBand, scaleLinear } from 'd3-scale';
import { figure, MONTHS } from '@/units/format';
import { Chart } from './Chart';

interface WeatherMonthsProps {
  months: readonly {
    ghi_kwh_per_m2: number;
    dhi_kwh_per_m2: number;
    max_degc: number;
    mean_degc: number;
    min_degc: number;
  }[];
  widthPx: number;
  heightPx: number;
}

const GAP = 46;
const EDGE = 14;

export function WeatherMonths({ months, widthPx, heightPx }: WeatherMonthsProps) {
  const half = (widthPx - GAP - EDGE) / 2;
  const x = scaleBand(MONTHS, [0, half]).padding(0.18);
  const light = scaleLinear([0, max(months, (m) => m.ghi_kwh_per_m2) ?? 1], [heightPx - 20, 34]);
  const air = scaleLinear(
    [min(months, (m) => m.min_degc) ?? 0, max(months, (m) => m.max_degc) ?? 1],
    [heightPx - 26, 34],
  );
  return (
    <Chart
      widthPx={widthPx}
      heightPx={heightPx}
      label="Light and air by month"
      readings={months.map((m, i) => ({
        xPx: (x(MONTHS[i] ?? '') ?? 0) + x.bandwidth() / 2,
        yPx: light(m.ghi_kwh_per_m2),
        told: `${MONTHS[i] ?? ''}: ${figure(m.ghi_kwh_per_m2)} kWh/m², ${figure(m.dhi_kwh_per_m2)} of it diffuse; air ${figure(m.min_degc)} to ${figure(m.max_degc)}, mean ${figure(m.mean_degc)} °C`,
      }))}
    >
      <text y="12" fontSize="12.5" fill="var(--color-ink-2)">
        Light on the level, kWh/m²: beam over diffuse
      </text>
      <text x={half + GAP} y="12" fontSize="12.5" fill="var(--color-ink-2)">
        Air, °C: days’ lowest to highest, mean
      </text>
      {months.map((m, i) => {
        const name = MONTHS[i] ?? '';
        const left = x(name) ?? 0;
        const middle = left + x.bandwidth() / 2;
        const shift = half + GAP;
        return (
          <g key={name} fontSize="12.5" textAnchor="middle">
            <rect
              x={left}
              y={light(m.ghi_kwh_per_m2)}
              width={x.bandwidth()}
              height={light(m.dhi_kwh_per_m2) - light(m.ghi_kwh_per_m2)}
              fill="var(--color-straw)"
            />
            <rect
              x={left}
              y={light(m.dhi_kwh_per_m2)}
              width={x.bandwidth()}
              height={light(0) - light(m.dhi_kwh_per_m2)}
              fill="var(--color-straw-wash)"
            />
            <text x={middle} y={light(m.ghi_kwh_per_m2) - 4}>
              {figure(m.ghi_kwh_per_m2)}
            </text>
            <text x={middle} y={heightPx - 5} fill="var(--color-ink-2)">
              {name}
            </text>
            <line
              x1={shift + middle}
              x2={shift + middle}
              y1={air(m.min_degc)}
              y2={air(m.max_degc)}
              stroke="var(--color-field)"
              strokeWidth="7"
              strokeLinecap="round"
            />
            <circle cx={shift + middle} cy={air(m.mean_degc)} r="3" fill="var(--color-ink)" />
            <text x={shift + middle + 9} y={air(m.mean_degc) + 4} textAnchor="start">
              {figure(m.mean_degc)}
            </text>
            <text x={shift + middle} y={heightPx - 5} fill="var(--color-ink-2)">
              {name}
            </text>
          </g>
        );
      })}
    </Chart>
  );
}
