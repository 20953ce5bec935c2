/** Energy against the angle each half is turned by, with what the limit cuts. */
import { scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';
import { figure, lossShare } from '@/units/format';
import { Chart } from './Chart';
import { LevelLines } from './LevelLines';

export interface SplitDot {
  splitDeg: number;
  yearKwh: number;
  clippedFrac: number;
}

interface SplitChartProps {
  dots: readonly SplitDot[];
  bestDeg: number;
  widthPx: number;
  heightPx: number;
}

const PAD = { left: 56, right: 46, top: 22, bottom: 32 };

export function SplitChart({ dots, bestDeg, widthPx, heightPx }: SplitChartProps) {
  const energies = dots.map((d) => d.yearKwh);
  const [low, high] = [Math.min(...energies), Math.max(...energies)];
  const x = scaleLinear([0, 90], [PAD.left, widthPx - PAD.right]);
  const y = scaleLinear(
    [low - (high - low) * 0.1 - 1, high + (high - low) * 0.1 + 1],
    [heightPx - PAD.bottom, PAD.top],
  );
  const c = scaleLinear(
    [0, Math.max(0.05, ...dots.map((d) => d.clippedFrac)) * 100],
    [heightPx - PAD.bottom, PAD.top],
  );
  const best = dots.find((d) => d.splitDeg === bestDeg) ?? dots[0];
  return (
    <Chart
      widthPx={widthPx}
      heightPx={heightPx}
      label={`Most energy with each half turned by ${figure(bestDeg)}°`}
      readings={dots.map((d) => ({
        xPx: x(d.splitDeg),
        yPx: y(d.yearKwh),
        told: `${figure(d.splitDeg)}°: ${figure(d.yearKwh)} kWh, ${lossShare(d.clippedFrac)} clipped`,
      }))}
    >
      <g fontSize="12.5" fill="var(--color-ink-2)">
        <LevelLines y={y} count={4} leftPx={PAD.left} rightPx={widthPx - PAD.right} name={figure} />
        {c.ticks(3).map((percent) => (
          <text
            key={percent}
            x={widthPx - PAD.right + 5}
            y={c(percent) + 4}
            fill="var(--color-copper)"
          >
            {percent} %
          </text>
        ))}
        {[0, 15, 30, 45, 60, 75, 90].map((deg) => (
          <text key={deg} x={x(deg)} y={heightPx - PAD.bottom + 15} textAnchor="middle">
            {deg}°
          </text>
        ))}
        <text x={4} y={13}>
          kWh a year
        </text>
        <text x={widthPx - 4} y={13} textAnchor="end" fill="var(--color-copper)">
          clipped
        </text>
        <text x={widthPx - PAD.right} y={heightPx - 3} textAnchor="end">
          each half turned from the equator
        </text>
      </g>
      <path
        d={
          line<SplitDot>(
            (d) => x(d.splitDeg),
            (d) => c(d.clippedFrac * 100),
          )([...dots]) ?? ''
        }
        fill="none"
        stroke="var(--color-copper)"
        strokeWidth="1.5"
        strokeDasharray="3 3"
      />
      <path
        d={
          line<SplitDot>(
            (d) => x(d.splitDeg),
            (d) => y(d.yearKwh),
          )([...dots]) ?? ''
        }
        fill="none"
        stroke="var(--color-patina)"
        strokeWidth="2.5"
      />
      {best && <circle cx={x(best.splitDeg)} cy={y(best.yearKwh)} r="6" fill="var(--color-ink)" />}
    </Chart>
  );
}
