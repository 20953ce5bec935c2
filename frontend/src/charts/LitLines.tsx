/** How much of the beam reaches each part of a module through a day. */
import { scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';
import { clockOf, figure } from '@/units/format';
import { Chart } from './Chart';

interface LitLinesProps {
  label: string;
  minutes: readonly number[];
  /** A line a part: shares from 0 to 1, one for each minute. */
  parts: readonly (readonly number[])[];
  /** The moment in view. */
  minute: number;
  widthPx: number;
  heightPx: number;
  onMinute: (minute: number) => void;
}

const PAD = { left: 34, right: 10, top: 8, bottom: 20 };
const STROKES = ['var(--color-copper)', 'var(--color-patina)', 'var(--color-thread-plum)'];

export function LitLines({
  label,
  minutes,
  parts,
  minute,
  widthPx,
  heightPx,
  onMinute,
}: LitLinesProps) {
  const [first = 0, last = 1440] = [minutes[0], minutes.at(-1)];
  const x = scaleLinear([first, Math.max(last, first + 1)], [PAD.left, widthPx - PAD.right]);
  const y = scaleLinear([0, 1], [heightPx - PAD.bottom, PAD.top]);
  const hours = Array.from({ length: 9 }, (_, i) => i * 180).filter((m) => m > first && m < last);
  return (
    <Chart
      label={label}
      widthPx={widthPx}
      heightPx={heightPx}
      readings={minutes.flatMap((m, k) =>
        m % 60 === 0
          ? [
              {
                xPx: x(m),
                yPx: y(parts[0]?.[k] ?? 0),
                told: `${clockOf(m)}: ${parts.map((p) => figure((p[k] ?? 0) * 100)).join(', ')} % lit`,
              },
            ]
          : [],
      )}
      // The time slider beside it does the same by keyboard.
      onClick={(xPx) => onMinute(Math.round(x.invert(xPx)))}
    >
      {[0, 0.5, 1].map((share) => (
        <g key={share}>
          <line
            x1={PAD.left}
            x2={widthPx - PAD.right}
            y1={y(share)}
            y2={y(share)}
            stroke="var(--color-rule)"
          />
          <text
            x={PAD.left - 5}
            y={y(share) + 4}
            fontSize="12"
            textAnchor="end"
            fill="var(--color-ink-2)"
          >
            {share * 100}
          </text>
        </g>
      ))}
      {hours.map((m) => (
        <text
          key={m}
          x={x(m)}
          y={heightPx - 5}
          fontSize="12"
          textAnchor="middle"
          fill="var(--color-ink-2)"
        >
          {m / 60}:00
        </text>
      ))}
      <line
        x1={x(minute)}
        x2={x(minute)}
        y1={PAD.top}
        y2={heightPx - PAD.bottom}
        stroke="var(--color-ink)"
        strokeDasharray="3 3"
      />
      {parts.map((part, i) => (
        <path
          // biome-ignore lint/suspicious/noArrayIndexKey: parts have no other name
          key={i}
          d={
            line<number>(
              (_, k) => x(minutes[k] ?? first),
              (v) => y(v) + i - 1,
            )(part as number[]) ?? ''
          }
          fill="none"
          stroke={STROKES[i % STROKES.length]}
          strokeWidth="1.8"
        />
      ))}
    </Chart>
  );
}
