/** Twelve bars with direct figures. */
import { max } from 'd3-array';
import { scaleBand, scaleLinear } from 'd3-scale';
import { figure, MONTHS } from '@/units/format';
import { Chart } from './Chart';

interface MonthBarsProps {
  label: string;
  valuesKwh: readonly number[];
  widthPx: number;
  heightPx: number;
}

export function MonthBars({ label, valuesKwh, widthPx, heightPx }: MonthBarsProps) {
  const x = scaleBand(MONTHS, [0, widthPx]).padding(0.16);
  const y = scaleLinear([0, max(valuesKwh) ?? 1], [heightPx - 18, 16]);
  return (
    <Chart
      label={label}
      widthPx={widthPx}
      heightPx={heightPx}
      readings={MONTHS.map((month, i) => ({
        xPx: (x(month) ?? 0) + x.bandwidth() / 2,
        yPx: y(Math.max(0, valuesKwh[i] ?? 0)),
        told: `${month} ${figure(Math.round((valuesKwh[i] ?? 0) / 10) * 10)} kWh`,
      }))}
    >
      {MONTHS.map((month, i) => {
        const value = valuesKwh[i] ?? 0;
        const left = x(month) ?? 0;
        return (
          <g key={month} fontSize="12.5" textAnchor="middle">
            <rect
              x={left}
              y={y(Math.max(0, value))}
              width={x.bandwidth()}
              height={Math.max(0, heightPx - 18 - y(Math.max(0, value)))}
              fill="var(--color-straw)"
            />
            <text
              x={left + x.bandwidth() / 2}
              y={y(Math.max(0, value)) - 4}
              fill="var(--color-ink)"
            >
              {figure(Math.round(value / 10) * 10)}
            </text>
            <text x={left + x.bandwidth() / 2} y={heightPx - 4} fill="var(--color-ink-2)">
              {month}
            </text>
          </g>
        );
      })}
    </Chart>
  );
}
