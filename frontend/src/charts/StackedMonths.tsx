/** Twelve months of one or more stacks beside each other, kWh. */
import { scaleBand, scaleLinear } from 'd3-scale';
import { figure, MONTHS } from '@/units/format';
import { Chart } from './Chart';
import { LevelLines } from './LevelLines';
import { LineKey } from './LineKey';

export interface Layer {
  title: string;
  colour: string;
  /** Twelve months. */
  kwh: readonly number[];
}

interface StackedMonthsProps {
  label: string;
  /** Each stack with its layers from the foot up. */
  stacks: readonly (readonly Layer[])[];
  widthPx: number;
  heightPx: number;
}

const PAD = { left: 44, right: 4, top: 8, bottom: 18 };

export function StackedMonths({ label, stacks, widthPx, heightPx }: StackedMonthsProps) {
  const heights = stacks.flatMap((layers) =>
    MONTHS.map((_, m) => layers.reduce((sum, l) => sum + (l.kwh[m] ?? 0), 0)),
  );
  const x = scaleBand(MONTHS, [PAD.left, widthPx - PAD.right]).padding(0.2);
  const y = scaleLinear([0, Math.max(1, ...heights) * 1.04], [heightPx - PAD.bottom, PAD.top]);
  const widthOfOne = x.bandwidth() / Math.max(1, stacks.length);
  const titles = new Map(stacks.flat().map((l) => [l.title, l]));
  return (
    <figure>
      <Chart
        label={label}
        widthPx={widthPx}
        heightPx={heightPx}
        readings={MONTHS.map((month, m) => ({
          xPx: (x(month) ?? 0) + x.bandwidth() / 2,
          yPx: y(Math.max(0, heights[m] ?? 0)),
          told: `${month}: ${stacks
            .flatMap((layers) => layers.map((l) => `${l.title} ${figure(l.kwh[m] ?? 0)}`))
            .join(', ')} kWh`,
        }))}
      >
        <g fontSize="12" fill="var(--color-ink-2)">
          <LevelLines
            y={y}
            count={3}
            leftPx={PAD.left}
            rightPx={widthPx - PAD.right}
            name={String}
          />
          {MONTHS.map((month) => (
            <text
              key={month}
              x={(x(month) ?? 0) + x.bandwidth() / 2}
              y={heightPx - 4}
              textAnchor="middle"
            >
              {x.step() < 26 ? month.slice(0, 1) : month}
            </text>
          ))}
        </g>
        {MONTHS.map((month, m) =>
          stacks.map((layers, s) => {
            let foot = 0;
            return layers.map((layer) => {
              const kwh = Math.max(0, layer.kwh[m] ?? 0);
              const top = y(foot + kwh);
              const height = y(foot) - top;
              foot += kwh;
              return (
                <rect
                  // biome-ignore lint/suspicious/noArrayIndexKey: a stack is named by its place
                  key={`${month} ${s} ${layer.title}`}
                  x={(x(month) ?? 0) + s * widthOfOne}
                  width={Math.max(1, widthOfOne - 1)}
                  y={top}
                  height={height}
                  fill={layer.colour}
                />
              );
            });
          }),
        )}
      </Chart>
      <figcaption>
        <LineKey lines={[...titles.values()].map((l) => ({ ...l, dash: '' }))} />
      </figcaption>
    </figure>
  );
}
