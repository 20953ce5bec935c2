/** The currents of strings that share a tracker through a day, their sum against its limit. */
import { scaleLinear } from 'd3-scale';
import { area, line } from 'd3-shape';
import { figure } from '@/units/format';
import { Chart } from './Chart';
import { LevelLines } from './LevelLines';

export interface StringLine {
  tag: string;
  amps: readonly number[];
  colour: string;
  dash: string;
}

interface CurrentDayProps {
  together: readonly number[];
  limitA: number;
  strings: readonly StringLine[];
  widthPx: number;
  heightPx: number;
}

const PAD = { left: 34, right: 42, top: 10, bottom: 20 };
const FIRST_H = 4;
const LAST_H = 21;

export function CurrentDay({ together, limitA, strings, widthPx, heightPx }: CurrentDayProps) {
  const most = Math.max(limitA, ...together) * 1.08;
  const x = scaleLinear([FIRST_H, LAST_H], [PAD.left, widthPx - PAD.right]);
  const y = scaleLinear([0, most], [heightPx - PAD.bottom, PAD.top]);
  // Each value is the mean of its hour: it stands at its middle.
  const hours = (values: readonly number[]) =>
    values.map((a, h) => [h + 0.5, a] as const).filter(([h]) => h >= FIRST_H && h <= LAST_H);
  const drawn = line<readonly [number, number]>(
    ([h]) => x(h),
    ([, a]) => y(a),
  );
  const over = area<readonly [number, number]>(
    ([h]) => x(h),
    () => y(limitA),
    ([, a]) => y(Math.max(a, limitA)),
  );
  const peak = Math.max(...together);
  const peakH = together.indexOf(peak) + 0.5;
  return (
    <Chart
      widthPx={widthPx}
      heightPx={heightPx}
      label={`Together ${figure(peak, 1)} A at most, limit ${figure(limitA, 1)} A`}
      readings={hours(together).map(([h, amps]) => ({
        xPx: x(h),
        yPx: y(amps),
        told: `${h - 0.5}:00: ${strings
          .map((s) => `${s.tag} ${figure(s.amps[h - 0.5] ?? 0, 1)}`)
          .join(', ')}, together ${figure(amps, 1)} A`,
      }))}
    >
      <g fontSize="12" fill="var(--color-ink-2)">
        <LevelLines y={y} count={4} leftPx={PAD.left} rightPx={widthPx - PAD.right} name={String} />
        {[6, 9, 12, 15, 18].map((h) => (
          <text key={h} x={x(h)} y={heightPx - 5} textAnchor="middle">
            {h}:00
          </text>
        ))}
        <text x={widthPx - PAD.right + 5} y={y(0) + 4}>
          A
        </text>
      </g>
      <path d={over([...hours(together)]) ?? ''} fill="var(--color-stop)" opacity="0.28" />
      {strings.map((s) => (
        <path
          key={s.tag}
          d={drawn([...hours(s.amps)]) ?? ''}
          fill="none"
          stroke={s.colour}
          strokeWidth="2"
          strokeDasharray={s.dash}
        />
      ))}
      <path
        d={drawn([...hours(together)]) ?? ''}
        fill="none"
        stroke="var(--color-ink)"
        strokeWidth="2.5"
      />
      <line
        x1={PAD.left}
        x2={widthPx - PAD.right}
        y1={y(limitA)}
        y2={y(limitA)}
        stroke="var(--color-stop)"
        strokeWidth="1.5"
      />
      <text
        x={widthPx - PAD.right + 4}
        y={y(limitA) + 4}
        fontSize="12"
        fontWeight="600"
        fill="var(--color-stop)"
      >
        {figure(limitA, limitA % 1 ? 1 : 0)} A
      </text>
      <text x={x(peakH)} y={y(peak) - 4} fontSize="12.5" fontWeight="600" textAnchor="middle">
        {figure(peak, 1)} A
      </text>
    </Chart>
  );
}
