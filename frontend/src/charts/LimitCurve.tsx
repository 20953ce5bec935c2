/** What each AC limit would clip in the year, with the limit in use marked. */
import { scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';
import { figure, lossShare } from '@/units/format';
import { Chart } from './Chart';

export interface LimitPoint {
  limitKw: number;
  clippedKwh: number;
  clippedFrac: number;
}

/** The clipped energy at a limit, between the points of the reply. */
export function clippedAt(points: readonly LimitPoint[], limitKw: number): LimitPoint {
  const after = points.findIndex((p) => p.limitKw >= limitKw);
  const [low, high] = [points[after - 1], points[after]];
  if (!high) return { limitKw, clippedKwh: 0, clippedFrac: 0 };
  if (!low) return high;
  const share = (limitKw - low.limitKw) / (high.limitKw - low.limitKw);
  return {
    limitKw,
    clippedKwh: low.clippedKwh + share * (high.clippedKwh - low.clippedKwh),
    clippedFrac: low.clippedFrac + share * (high.clippedFrac - low.clippedFrac),
  };
}

interface LimitCurveProps {
  points: readonly LimitPoint[];
  limitKw: number;
  widthPx: number;
  heightPx: number;
}

const PAD = { left: 38, right: 10, top: 12, bottom: 32 };

export function LimitCurve({ points, limitKw, widthPx, heightPx }: LimitCurveProps) {
  const last = points.at(-1)?.limitKw ?? 1;
  const x = scaleLinear([0, last], [PAD.left, widthPx - PAD.right]);
  const y = scaleLinear([0, 100], [heightPx - PAD.bottom, PAD.top]);
  const here = clippedAt(points, limitKw);
  const percent = here.clippedFrac * 100;
  const onRight = x(limitKw) < widthPx * 0.6;
  return (
    <Chart
      widthPx={widthPx}
      heightPx={heightPx}
      label={`At ${figure(limitKw, 2)} kW ${lossShare(percent / 100)} of the year is clipped`}
      readings={points.map((p) => ({
        xPx: x(p.limitKw),
        yPx: y(p.clippedFrac * 100),
        told: `${figure(p.limitKw, 2)} kW: ${lossShare(p.clippedFrac)} clipped`,
      }))}
    >
      <g fontSize="12.5" fill="var(--color-ink-2)">
        {[0, 25, 50, 75, 100].map((share) => (
          <g key={share}>
            <line
              x1={PAD.left}
              x2={widthPx - PAD.right}
              y1={y(share)}
              y2={y(share)}
              stroke="var(--color-rule)"
            />
            <text x={PAD.left - 5} y={y(share) + 4} textAnchor="end">
              {share} %
            </text>
          </g>
        ))}
        {x.ticks(6).map((kw) => (
          <text key={kw} x={x(kw)} y={heightPx - PAD.bottom + 15} textAnchor="middle">
            {kw}
          </text>
        ))}
        <text x={widthPx - PAD.right} y={heightPx - 3} textAnchor="end">
          AC limit, kW
        </text>
      </g>
      <path
        d={
          line<LimitPoint>(
            (p) => x(p.limitKw),
            (p) => y(p.clippedFrac * 100),
          )([...points]) ?? ''
        }
        fill="none"
        stroke="var(--color-patina)"
        strokeWidth="2"
      />
      <line
        x1={x(limitKw)}
        x2={x(limitKw)}
        y1={y(0)}
        y2={PAD.top}
        stroke="var(--color-stop)"
        strokeDasharray="4 3"
      />
      <circle cx={x(limitKw)} cy={y(percent)} r="5" fill="var(--color-copper)" />
      <text
        x={x(limitKw) + (onRight ? 9 : -9)}
        y={y(percent) - 9}
        fontSize="13"
        fontWeight="600"
        textAnchor={onRight ? 'start' : 'end'}
      >
        {lossShare(percent / 100)}
      </text>
    </Chart>
  );
}
