/** A plane seen from above at its place on the site: edges by kind, which way it looks. */
import type { RoofPlane } from '@/api/client';
import { type Camera, type PointPx, toScreen } from '@/drawing/camera';
import { RoofEdges } from '@/drawing/RoofOutline';
import type { PlaneSurvey } from '@/plan/scene';

interface PlaneOnSiteProps {
  camera: Camera;
  seen: PlaneSurvey;
  chosen: boolean;
}

const corner = (camera: Camera, c: PlaneSurvey['site'][number]): PointPx =>
  toScreen(camera, { xM: c.east_m, yM: c.north_m });

function middlePx(camera: Camera, seen: PlaneSurvey): PointPx {
  const points = seen.site.map((c) => corner(camera, c));
  return {
    xPx: points.reduce((sum, p) => sum + p.xPx, 0) / points.length,
    yPx: points.reduce((sum, p) => sum + p.yPx, 0) / points.length,
  };
}

export function PlaneOnSite({ camera, seen, chosen }: PlaneOnSiteProps) {
  const points = seen.site.map((c) => corner(camera, c));
  return (
    <>
      <polygon
        points={points.map((p) => `${p.xPx.toFixed(1)},${p.yPx.toFixed(1)}`).join(' ')}
        fill={chosen ? 'var(--color-copper-wash)' : 'var(--color-sheet)'}
        fillOpacity={0.88}
        stroke={chosen ? 'var(--color-copper)' : 'none'}
        strokeWidth={chosen ? 5 : 0}
      />
      <RoofEdges
        camera={camera}
        corners={seen.site.map((c) => ({ xM: c.east_m, yM: c.north_m }))}
        edges={seen.edges.map((e) => ({ kind: e.kind, state: e.state, stripM: 0 }))}
      />
    </>
  );
}

interface PlaneLabelProps {
  camera: Camera;
  plane: RoofPlane;
  seen: PlaneSurvey;
}

const LETTER_PX = 6.6;
const LINE_PX = 15;

/** The plane's name, word under word where it fits, and the way the water runs. */
export function PlaneLabel({ camera, plane, seen }: PlaneLabelProps) {
  const middle = middlePx(camera, seen);
  const points = seen.site.map((c) => corner(camera, c));
  const wide = Math.max(...points.map((p) => p.xPx)) - Math.min(...points.map((p) => p.xPx));
  const tall = Math.max(...points.map((p) => p.yPx)) - Math.min(...points.map((p) => p.yPx));
  const lines = plane.name.length * LETTER_PX <= wide ? [plane.name] : plane.name.split(' ');
  const longest = Math.max(...lines.map((line) => line.length)) * LETTER_PX;
  if (longest > wide || lines.length * LINE_PX + 24 > tall) return null;
  const upright = plane.slope_deg > 89;
  const guessed = !plane.azimuth_given;
  const top = middle.yPx - (lines.length - 1) * LINE_PX;
  return (
    <g pointerEvents="none">
      {!upright && (
        <g
          transform={`translate(${middle.xPx} ${middle.yPx + 16}) rotate(${plane.azimuth_deg - 180})`}
          stroke={guessed ? 'var(--color-warn)' : 'var(--color-ink-2)'}
          strokeWidth="1.6"
          fill="none"
        >
          <path d="M0 -9 V9 M-4 3 L0 10 L4 3" strokeDasharray={guessed ? '3 2' : undefined} />
        </g>
      )}
      {lines.map((line, i) => (
        <text
          key={line}
          x={middle.xPx}
          y={top + i * LINE_PX}
          fontSize="13"
          fontWeight="600"
          textAnchor="middle"
          stroke="var(--color-sheet)"
          strokeWidth="3"
          paintOrder="stroke"
          fill="var(--color-ink)"
        >
          {line}
        </text>
      ))}
    </g>
  );
}
