/** Level lines across a chart with their figures at its left edge. */
import type { ScaleLinear } from 'd3-scale';

interface LevelLinesProps {
  y: ScaleLinear<number, number>;
  /** About how many. */
  count: number;
  leftPx: number;
  rightPx: number;
  name: (value: number) => string;
}

export function LevelLines({ y, count, leftPx, rightPx, name }: LevelLinesProps) {
  return y.ticks(count).map((value) => (
    <g key={value}>
      <line x1={leftPx} x2={rightPx} y1={y(value)} y2={y(value)} stroke="var(--color-rule)" />
      <text x={leftPx - 5} y={y(value) + 4} textAnchor="end">
        {name(value)}
      </text>
    </g>
  ));
}
