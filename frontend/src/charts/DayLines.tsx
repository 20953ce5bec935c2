/** Curves of one day laid over each other, kW by the hour. */
import { scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';
import { figure } from '@/units/format';
import { Chart } from './Chart';
import { LevelLines } from './LevelLines';
import { type KeyedLine, LineKey } from './LineKey';

export interface DayLine extends KeyedLine {
  kw: readonly number[];
}

interface DayLinesProps {
  label: string;
  lines: readonly DayLine[];
  widthPx: number;
  heightPx: number;
  /** Drawn across at so many kW. */
  limitKw?: number | null;
}

const PAD = { left: 30, right: 8, top: 16, bottom: 20 };

export function DayLines({ label, lines, widthPx, heightPx, limitKw = null }: DayLinesProps) {
  const most = Math.max(0.1, limitKw ?? 0, ...lines.flatMap((l) => [...l.kw])) * 1.05;
  const x = scaleLinear([3, 22], [PAD.left, widthPx - PAD.right]);
  const y = scaleLinear([0, most], [heightPx - PAD.bottom, PAD.top]);
  const hours = Array.from({ length: 18 }, (_, i) => i + 4);
  const readings = hours.map((h) => {
    const here = lines.map((l) => ({
      title: l.title,
      kw: l.kw[Math.floor((h * l.kw.length) / 24)] ?? 0,
    }));
    return {
      // A value is the mean of its step: it is drawn at the middle of it.
      xPx: x(h + 12 / (lines[0]?.kw.length ?? 24)),
      yPx: y(Math.max(0, ...here.map((l) => l.kw))),
      told: `${h}:00: ${here.map((l) => `${l.title} ${figure(l.kw, 2)}`).join(', ')} kW`,
    };
  });
  return (
    <figure>
      <Chart label={label} widthPx={widthPx} heightPx={heightPx} readings={readings}>
        <g fontSize="12" fill="var(--color-ink-2)">
          <LevelLines
            y={y}
            count={3}
            leftPx={PAD.left}
            rightPx={widthPx - PAD.right}
            name={String}
          />
          <text x={2} y={10}>
            kW
          </text>
          {[6, 9, 12, 15, 18, 21].map((h) => (
            <text key={h} x={x(h)} y={heightPx - 5} textAnchor="middle">
              {h}:00
            </text>
          ))}
        </g>
        {limitKw !== null && (
          <g>
            <line
              x1={PAD.left}
              x2={widthPx - PAD.right}
              y1={y(limitKw)}
              y2={y(limitKw)}
              stroke="var(--color-stop)"
              strokeWidth="1.5"
            />
            <text
              x={widthPx - PAD.right}
              y={y(limitKw) - 4}
              textAnchor="end"
              fontSize="12"
              fill="var(--color-stop)"
            >
              limit {limitKw} kW
            </text>
          </g>
        )}
        {lines.map((l) => (
          <path
            key={l.title}
            d={
              line<[number, number]>(
                ([h]) => x(h),
                ([, kw]) => y(Math.max(0, kw)),
              )(
                l.kw
                  .map((kw, i): [number, number] => [((i + 0.5) * 24) / l.kw.length, kw])
                  .filter(([h]) => h >= 3 && h <= 22),
              ) ?? ''
            }
            fill="none"
            stroke={l.colour}
            strokeWidth="2"
            strokeDasharray={l.dash}
          />
        ))}
      </Chart>
      <figcaption>
        <LineKey lines={lines} />
      </figcaption>
    </figure>
  );
}
