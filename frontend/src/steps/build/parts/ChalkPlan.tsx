/** The plane small and to scale: corners of the modules with their tapes, diagonals, rails, mounts. */
import type { Schemas } from '@/api/client';
import type { PointM } from '@/drawing/camera';
import { fitCamera, toScreen } from '@/drawing/camera';

interface ChalkPlanProps {
  racked: Schemas['PlaneRackingView'];
  corners: PointM[];
  tape: (lengthM: number) => string;
}

const WIDE_PX = 640;
const TALL_PX = 218;
const PAD = { left: 150, right: 150, top: 8, bottom: 8 };
const BESIDE_PX = 6;
/** With more rails than this the drawing gives room to the table: it stays one page. */
const MANY_LINES = 8;
const MOUNT_PX = 2.6;

export function ChalkPlan({ racked, corners, tape }: ChalkPlanProps) {
  const camera = fitCamera(corners, { widthPx: WIDE_PX, heightPx: TALL_PX, paddingPx: PAD });
  const at = (xM: number, yM: number) => toScreen(camera, { xM, yM });
  const { left_m: left, right_m: right, bottom_m: bottom, top_m: top } = racked;
  const [low, high] = [at(left, bottom), at(right, top)];
  const sides = corners.map((c) => (racked.up_slope ? c.xM : c.yM));
  const along = (alongM: number, acrossM: number) =>
    racked.up_slope ? at(acrossM, alongM) : at(alongM, acrossM);
  const ring = corners.map((c) => toScreen(camera, c));
  const edges = [Math.min(...ring.map((p) => p.xPx)), Math.max(...ring.map((p) => p.xPx))] as const;
  return (
    <svg
      viewBox={`0 0 ${WIDE_PX} ${TALL_PX}`}
      className="mx-auto block w-full"
      style={{
        maxWidth: new Set(racked.runs.map((r) => r.line)).size > MANY_LINES ? 430 : WIDE_PX,
      }}
      role="img"
      aria-label="Corners, diagonals, rails and mounts to scale"
    >
      <polygon
        points={ring.map((p) => `${p.xPx},${p.yPx}`).join(' ')}
        fill="white"
        stroke="black"
        strokeWidth="1.4"
      />
      {racked.supports_m.map((m) => {
        const [from, to] = [along(m, Math.min(...sides)), along(m, Math.max(...sides))];
        return (
          <line
            key={m}
            x1={from.xPx}
            y1={from.yPx}
            x2={to.xPx}
            y2={to.yPx}
            stroke="black"
            strokeWidth="0.5"
            strokeDasharray="2 3"
          />
        );
      })}
      <rect
        x={low.xPx}
        y={high.yPx}
        width={high.xPx - low.xPx}
        height={low.yPx - high.yPx}
        fill="none"
        stroke="black"
      />
      {[
        [low.xPx, low.yPx, high.xPx, high.yPx],
        [low.xPx, high.yPx, high.xPx, low.yPx],
      ].map(([x1, y1, x2, y2]) => (
        <line
          key={y1}
          x1={x1}
          y1={y1}
          x2={x2}
          y2={y2}
          stroke="black"
          strokeWidth="0.6"
          strokeDasharray="7 4"
        />
      ))}
      {racked.runs.map((run) => {
        const [from, to] = [along(run.from_m, run.across_m), along(run.to_m, run.across_m)];
        return (
          <g key={run.name}>
            <line
              x1={from.xPx}
              y1={from.yPx}
              x2={to.xPx}
              y2={to.yPx}
              stroke="black"
              strokeWidth="2"
            />
            {run.mounts.map((mount) => {
              const spot = along(mount.at_m, run.across_m);
              return <circle key={mount.at_m} cx={spot.xPx} cy={spot.yPx} r={MOUNT_PX} />;
            })}
          </g>
        );
      })}
      {(
        [
          ['end', left, bottom],
          ['end', left, top],
          ['start', right, bottom],
          ['start', right, top],
        ] as const
      ).map(([anchor, xM, yM]) => (
        <text
          key={`${xM} ${yM}`}
          x={anchor === 'end' ? edges[0] - BESIDE_PX : edges[1] + BESIDE_PX}
          y={at(xM, yM).yPx + 4}
          textAnchor={anchor}
          fontSize="12"
          fontWeight="600"
        >
          → {tape(xM)} ↑ {tape(yM)}
        </text>
      ))}
    </svg>
  );
}
