/** One array over another through the day: what is due, how far it may be off, and the reading on it. */
import { scaleLinear, scaleLog } from 'd3-scale';
import { area, line } from 'd3-shape';
import type { Schemas } from '@/api/client';
import { Chart } from '@/charts/Chart';
import { figure } from '@/units/format';

interface RatioDayProps {
  pair: Schemas['PairNow'];
  minutes: readonly number[];
  now: number;
  widthPx: number;
}

const PAD = { left: 38, right: 10, top: 12, bottom: 22 };
const HIGH_PX = 190;
const LEVELS = [0.1, 0.2, 0.5, 1, 2, 5, 10];

interface Point {
  hour: number;
  due: number;
  low: number;
  high: number;
}

export function RatioDay({ pair, minutes, now, widthPx }: RatioDayProps) {
  const points: Point[] = minutes.flatMap((minute, n) => {
    const [due, low, high] = [pair.day_due[n], pair.day_low[n], pair.day_high[n]];
    return due == null || low == null || high == null
      ? []
      : [{ hour: minute / 60, due, low, high }];
  });
  if (points.length < 2) return null;
  const values = points.flatMap((p) => [p.low, p.high]).concat(pair.read ?? []);
  const [dawn, dusk] = [points[0]?.hour ?? 4, points[points.length - 1]?.hour ?? 21];
  const x = scaleLinear([dawn, dusk], [PAD.left, widthPx - PAD.right]);
  const y = scaleLog(
    [Math.max(0.05, Math.min(...values) * 0.9), Math.min(20, Math.max(...values) * 1.1)],
    [HIGH_PX - PAD.bottom, PAD.top],
  ).clamp(true);
  const band = area<Point>(
    (p) => x(p.hour),
    (p) => y(p.low),
    (p) => y(p.high),
  );
  const due = line<Point>(
    (p) => x(p.hour),
    (p) => y(p.due),
  );
  const readings = points
    .filter((p) => Number.isInteger(p.hour))
    .map((p) => ({
      xPx: x(p.hour),
      yPx: y(p.due),
      told: `${p.hour}:00: ${figure(p.due, 2)} times, ${figure(p.low, 2)} to ${figure(p.high, 2)} is normal`,
    }));
  const [from, to] = y.domain() as [number, number];
  return (
    <Chart
      label={`${pair.title}, watt for watt, over the day`}
      widthPx={widthPx}
      heightPx={HIGH_PX}
      readings={readings}
    >
      <g fontSize="12" fill="var(--color-ink-2)">
        {LEVELS.filter((v) => v >= from && v <= to).map((v) => (
          <g key={v}>
            <line
              x1={PAD.left}
              x2={widthPx - PAD.right}
              y1={y(v)}
              y2={y(v)}
              stroke="var(--color-rule)"
            />
            <text x={PAD.left - 5} y={y(v) + 4} textAnchor="end">
              {v}×
            </text>
          </g>
        ))}
        {[6, 9, 12, 15, 18]
          .filter((h) => h >= dawn && h <= dusk)
          .map((h) => (
            <text key={h} x={x(h)} y={HIGH_PX - 6} textAnchor="middle">
              {h}:00
            </text>
          ))}
      </g>
      <path d={band(points) ?? ''} fill="var(--color-patina-wash)" />
      <path d={due(points) ?? ''} fill="none" stroke="var(--color-patina)" strokeWidth="2" />
      <line
        x1={x(now / 60)}
        x2={x(now / 60)}
        y1={PAD.top}
        y2={HIGH_PX - PAD.bottom}
        stroke="var(--color-ink-2)"
        strokeDasharray="3 3"
      />
      {pair.read != null && (
        <circle
          cx={x(now / 60)}
          cy={y(pair.read)}
          r="6"
          fill={pair.normal === 'normal' ? 'var(--color-patina)' : 'var(--color-stop)'}
          stroke="var(--color-sheet)"
          strokeWidth="2"
        />
      )}
    </Chart>
  );
}
