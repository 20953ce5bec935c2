/** The use of each month as a bar (billed, guessed, to come) and what the array makes as a step. */
import { max } from 'd3-array';
import { scaleBand, scaleLinear } from 'd3-scale';
import { figure, MONTHS } from '@/units/format';
import { Chart } from './Chart';

export interface NeedMonths {
  billedKwh: readonly number[];
  guessedKwh: readonly number[];
  toComeKwh: readonly number[];
  arrayKwh: readonly number[];
}

interface NeedChartProps extends NeedMonths {
  arrayTitle: string;
  widthPx: number;
  heightPx: number;
}

const FOOT = 20;
const HEAD = 26;
const LEFT = 44;

export function NeedChart(props: NeedChartProps) {
  const { billedKwh, guessedKwh, toComeKwh, arrayKwh, arrayTitle, widthPx, heightPx } = props;
  const whole = MONTHS.map((_, i) => at(billedKwh, i) + at(guessedKwh, i) + at(toComeKwh, i));
  const highest = max([...whole, ...arrayKwh]) || 100;
  const x = scaleBand(MONTHS, [LEFT, widthPx - 4]).padding(0.2);
  const y = scaleLinear([0, highest], [heightPx - FOOT, HEAD]).nice(4);
  const ticks = y.ticks(4);
  const bar = (from: number, kwh: number, className: string, fill?: string) =>
    kwh > 0 ? (
      <rect
        y={y(from + kwh)}
        height={Math.max(0, y(from) - y(from + kwh))}
        width={x.bandwidth()}
        className={className}
        {...(fill ? { fill } : {})}
      />
    ) : null;
  const lastX = (x('Dec') ?? 0) + x.bandwidth();
  return (
    <Chart
      widthPx={widthPx}
      heightPx={heightPx}
      label={`Use of each month against ${arrayTitle}`}
      readings={MONTHS.map((month, i) => ({
        xPx: (x(month) ?? 0) + x.bandwidth() / 2,
        yPx: y(at(whole, i)),
        told: [
          `${month}: ${figure(at(billedKwh, i))} billed`,
          ...(at(guessedKwh, i) ? [`${figure(at(guessedKwh, i))} guessed`] : []),
          ...(at(toComeKwh, i) ? [`${figure(at(toComeKwh, i))} to come`] : []),
          `${figure(at(arrayKwh, i))} kWh made`,
        ].join(', '),
      }))}
    >
      <g fontSize="12.5">
        <defs>
          <pattern id="guessed" width="6" height="6" patternUnits="userSpaceOnUse">
            <rect width="6" height="6" className="fill-sheet" />
            <path d="M0 6 6 0" className="stroke-ink-3" strokeWidth="1" />
          </pattern>
        </defs>
        {ticks.map((tick) => (
          <g key={tick}>
            <line x1={LEFT} x2={widthPx} y1={y(tick)} y2={y(tick)} className="stroke-rule" />
            <text x={LEFT - 6} y={y(tick) + 4} textAnchor="end" className="fill-ink-2">
              {figure(tick)}
            </text>
          </g>
        ))}
        <text x={0} y={13} className="fill-ink-2">
          kWh a month
        </text>
        {MONTHS.map((month, i) => {
          const billed = at(billedKwh, i);
          const guessed = at(guessedKwh, i);
          return (
            <g key={month} transform={`translate(${x(month) ?? 0} 0)`}>
              {bar(0, billed, 'fill-ink-3')}
              {bar(billed, guessed, 'stroke-ink-3', 'url(#guessed)')}
              {bar(billed + guessed, at(toComeKwh, i), 'fill-straw')}
              <text
                x={x.bandwidth() / 2}
                y={heightPx - 5}
                textAnchor="middle"
                className="fill-ink-2"
              >
                {month}
              </text>
            </g>
          );
        })}
        <path d={steps(arrayKwh, x, y)} className="fill-none stroke-copper" strokeWidth="2.5" />
        {max(arrayKwh) ? (
          <text x={lastX} y={13} textAnchor="end" className="fill-copper font-semibold">
            {arrayTitle}
          </text>
        ) : null}
      </g>
    </Chart>
  );
}

const at = (values: readonly number[], i: number) => values[i] ?? 0;

/** One level a month: a month's energy has no slope. */
function steps(
  values: readonly number[],
  x: ReturnType<typeof scaleBand<string>>,
  y: (kwh: number) => number,
): string {
  if (!max(values)) return '';
  const gap = (x.step() - x.bandwidth()) / 2;
  return MONTHS.map((month, i) => {
    const left = (x(month) ?? 0) - gap;
    return `${i ? 'L' : 'M'}${left} ${y(at(values, i))}H${left + x.step()}`;
  }).join('');
}
