/** The two offsets of the chosen obstruction, as fields in their dimension lines. */
import type { RoofPlane, Schemas } from '@/api/client';
import { type Camera, type PointM, toScreen } from '@/drawing/camera';
import { Dimension } from '@/drawing/Dimension';
import { At } from '@/drawing/Pane';
import { useJob } from '@/plan/JobContext';
import type { PlaneSurvey } from '@/plan/scene';
import { TypedField } from '@/ui/TypedField';
import { echoOf } from '@/units/length';

interface OffsetFieldsProps {
  camera: Camera;
  plane: RoofPlane;
  seen: PlaneSurvey;
  obstruction: Schemas['Obstruction'];
}

const FROM: Record<Schemas['OffsetMode'], string> = {
  corner: 'from the left along the eave',
  edge: 'from the left edge along the eave',
  square: 'square off the left edge',
};

/** Where the left offset begins: the corner's line, the left edge level with it, or square off it. */
function startOf(mode: Schemas['OffsetMode'], seen: PlaneSurvey, at: PointM): PointM {
  const [first, last] = [seen.corners[0], seen.corners.at(-1)];
  if (!first || !last || mode === 'corner') return { xM: 0, yM: at.yM };
  const [dx, dy] = [last.x_m - first.x_m, last.y_m - first.y_m];
  if (mode === 'square') {
    const share = (at.xM * dx + at.yM * dy) / (dx * dx + dy * dy || 1);
    return { xM: share * dx, yM: share * dy };
  }
  return { xM: leftmostM(seen, at.yM), yM: at.yM };
}

function leftmostM(seen: PlaneSurvey, yM: number): number {
  const meets = seen.corners.flatMap((a, i) => {
    const b = seen.corners[(i + 1) % seen.corners.length];
    if (!b || a.y_m === b.y_m || yM < Math.min(a.y_m, b.y_m) || yM > Math.max(a.y_m, b.y_m))
      return [];
    return [a.x_m + ((yM - a.y_m) * (b.x_m - a.x_m)) / (b.y_m - a.y_m)];
  });
  return meets.length > 0 ? Math.min(...meets) : 0;
}

export function OffsetFields({ camera, plane, seen, obstruction }: OffsetFieldsProps) {
  const { job, edit } = useJob();
  const view = seen.obstructions.find((o) => o.id === obstruction.id);
  if (!view) return null;
  const { box, round } = view;
  const at: PointM = round
    ? { xM: (box.left_m + box.right_m) / 2, yM: (box.bottom_m + box.top_m) / 2 }
    : { xM: box.left_m, yM: box.bottom_m };
  const corner = toScreen(camera, at);
  const fromLeft = toScreen(camera, startOf(obstruction.offsets, seen, at));
  const fromEave = toScreen(camera, { xM: at.xM, yM: 0 });
  const field = (name: 'left' | 'bottom', label: string) => (
    <TypedField
      label={`${obstruction.name}, ${label}`}
      value={obstruction[name].typed}
      width={76}
      echo={(typed) => echoOf(typed, job.unit)}
      commit={(typed) =>
        edit({
          kind: 'set-obstruction-field',
          plane_id: plane.id,
          obstruction_id: obstruction.id,
          field: name,
          typed,
        })
      }
    />
  );
  return (
    <>
      <svg className="pointer-events-none absolute inset-0 h-full w-full" aria-hidden="true">
        <Dimension from={fromLeft} to={corner} offPx={0} gapPx={82} dashed />
        <Dimension from={fromEave} to={corner} offPx={0} gapPx={32} dashed />
      </svg>
      <At xPx={(fromLeft.xPx + corner.xPx) / 2} yPx={(fromLeft.yPx + corner.yPx) / 2}>
        {field('left', FROM[obstruction.offsets])}
      </At>
      <At xPx={corner.xPx} yPx={(fromEave.yPx + corner.yPx) / 2}>
        {field('bottom', 'up from the eave')}
      </At>
    </>
  );
}
