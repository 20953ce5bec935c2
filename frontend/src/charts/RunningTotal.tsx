/** The running total of a purchase year by year, as it is and at today's worth. */
import { scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';
import { money } from '@/units/format';
import { Chart } from './Chart';
import { LevelLines } from './LevelLines';
import { LineKey } from './LineKey';

interface RunningTotalProps {
  label: string;
  runningCents: readonly number[];
  discountedCents: readonly number[];
  currency: string;
  widthPx: number;
  heightPx: number;
}

const PAD = { left: 70, right: 10, top: 12, bottom: 22 };
const LINES = [
  { title: 'running total', colour: 'var(--color-patina)', dash: '' },
  { title: 'at today’s worth', colour: 'var(--color-copper)', dash: '6 4' },
] as const;

export function RunningTotal({
  label,
  runningCents,
  discountedCents,
  currency,
  widthPx,
  heightPx,
}: RunningTotalProps) {
  const all = [...runningCents, ...discountedCents, 0];
  const years = runningCents.length - 1;
  const x = scaleLinear([0, Math.max(1, years)], [PAD.left, widthPx - PAD.right]);
  const y = scaleLinear(
    [Math.min(...all), Math.max(...all)],
    [heightPx - PAD.bottom, PAD.top],
  ).nice(4);
  const path = line<number>()
    .x((_, n) => x(n))
    .y((cents) => y(cents));
  const each = years > 20 && widthPx < 600 ? 5 : years > 12 ? 5 : 1;
  return (
    <figure>
      <Chart
        label={label}
        widthPx={widthPx}
        heightPx={heightPx}
        readings={runningCents.map((cents, n) => ({
          xPx: x(n),
          yPx: y(cents),
          told: `year ${n}: ${money(cents, currency)}, at today’s worth ${money(discountedCents[n] ?? 0, currency)}`,
        }))}
      >
        <g fontSize="12" fill="var(--color-ink-2)">
          <LevelLines
            y={y}
            count={4}
            leftPx={PAD.left}
            rightPx={widthPx - PAD.right}
            name={(cents) => (cents === 0 ? '0' : money(cents, currency))}
          />
          {runningCents.map(
            (_, n) =>
              n % each === 0 && (
                // biome-ignore lint/suspicious/noArrayIndexKey: a year is its place
                <text key={n} x={x(n)} y={heightPx - 6} textAnchor="middle">
                  {n}
                </text>
              ),
          )}
        </g>
        <line
          x1={PAD.left}
          x2={widthPx - PAD.right}
          y1={y(0)}
          y2={y(0)}
          stroke="var(--color-ink)"
        />
        {[runningCents, discountedCents].map((cents, i) => (
          <path
            key={LINES[i]?.title}
            d={path([...cents]) ?? ''}
            fill="none"
            stroke={LINES[i]?.colour}
            strokeWidth="2.5"
            strokeDasharray={LINES[i]?.dash}
          />
        ))}
      </Chart>
      <LineKey lines={LINES} />
    </figure>
  );
}
