/** The two offsets of the chosen obstruction, as fields in their dimension lines. */
import type { RoofPlane, Schemas } from '@/api/client';
import { type Camera, toScreen } from '@/drawing/camera';
import { Dimension } from '@/drawing/Dimension';
import { At } from '@/drawing/PlaneCanvas';
import { useJob } from '@/plan/JobContext';
import { TypedField } from '@/ui/TypedField';
import { echoOf } from '@/units/length';

interface OffsetFieldsProps {
  camera: Camera;
  plane: RoofPlane;
  obstruction: Schemas['Obstruction'];
}

export function OffsetFields({ camera, plane, obstruction }: OffsetFieldsProps) {
  const { job, edit } = useJob();
  const { left, bottom } = obstruction;
  const corner = toScreen(camera, { xM: left.value_m, yM: bottom.value_m });
  const fromLeft = toScreen(camera, { xM: 0, yM: bottom.value_m });
  const fromEave = toScreen(camera, { xM: left.value_m, yM: 0 });
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
      <At xPx={(fromLeft.xPx + corner.xPx) / 2} yPx={corner.yPx}>
        {field('left', 'from the left along the eave')}
      </At>
      <At xPx={corner.xPx} yPx={(fromEave.yPx + corner.yPx) / 2}>
        {field('bottom', 'up from the eave')}
      </At>
    </>
  );
}
