/** Eave, ridge, height and ridge inset: dimension lines, and the fields in them. */
import type { RoofPlane } from '@/api/client';
import { type Camera, toScreen } from '@/drawing/camera';
import { Dimension, dimensionMiddle } from '@/drawing/Dimension';
import { At } from '@/drawing/PlaneCanvas';
import { useJob } from '@/plan/JobContext';
import { TypedField } from '@/ui/TypedField';
import { echoOf } from '@/units/length';

const OFF_PX = 40;
const FIELD_PX = 92;
/** A height taken from a plan, not along the slope. */
const ON_PLAN = /\s*(on\s+)?plan$/i;

function lines(camera: Camera, plane: RoofPlane) {
  const { eave, ridge, height, ridge_left } = plane.outline;
  const at = (xM: number, yM: number) => toScreen(camera, { xM, yM });
  const top = height.value_m;
  const leftM = Math.min(0, ridge_left.value_m);
  return {
    eave: { from: at(eave.value_m, 0), to: at(0, 0), offPx: -OFF_PX },
    ridge: {
      from: at(ridge_left.value_m, top),
      to: at(ridge_left.value_m + ridge.value_m, top),
      offPx: -OFF_PX,
    },
    height: { from: at(leftM, 0), to: at(leftM, top), offPx: -OFF_PX - 14 },
  };
}

export function isRectangle(plane: RoofPlane): boolean {
  const { eave, ridge, ridge_left } = plane.outline;
  return eave.value_m === ridge.value_m && ridge_left.value_m === 0;
}

export function OutlineLines({ camera, plane }: { camera: Camera; plane: RoofPlane }) {
  const drawn = lines(camera, plane);
  const { eave, ridge } = plane.outline;
  const eaveAt = toScreen(camera, { xM: eave.value_m / 2, yM: 0 });
  const ridgeAt = toScreen(camera, {
    xM: plane.outline.ridge_left.value_m + ridge.value_m / 2,
    yM: plane.outline.height.value_m,
  });
  return (
    <>
      <Dimension {...drawn.eave} gapPx={FIELD_PX + 8} />
      <Dimension {...drawn.ridge} gapPx={FIELD_PX + 8} />
      <Dimension {...drawn.height} gapPx={34} />
      <text
        x={eaveAt.xPx}
        y={eaveAt.yPx + 20}
        fontSize="13"
        fill="var(--color-ink-2)"
        textAnchor="middle"
      >
        eave
      </text>
      <text
        x={ridgeAt.xPx}
        y={ridgeAt.yPx - 9}
        fontSize="13"
        fill="var(--color-ink-2)"
        textAnchor="middle"
      >
        ridge
      </text>
    </>
  );
}

export function OutlineFields({ camera, plane }: { camera: Camera; plane: RoofPlane }) {
  const { job, edit } = useJob();
  const drawn = lines(camera, plane);
  const fields = [
    { field: 'eave', label: 'Eave length', line: drawn.eave, value: plane.outline.eave },
    { field: 'ridge', label: 'Ridge length', line: drawn.ridge, value: plane.outline.ridge },
    {
      field: 'height',
      label: 'Height up the slope',
      line: drawn.height,
      value: plane.outline.height,
    },
  ] as const;
  return (
    <>
      {fields.map(({ field, label, line, value }) => (
        <At key={field} {...dimensionMiddle(line.from, line.to, line.offPx)}>
          <TypedField
            label={label}
            value={value.typed}
            width={FIELD_PX}
            noteAbove={field === 'eave'}
            echo={(typed) =>
              field === 'height' && ON_PLAN.test(typed)
                ? `${echoOf(typed.replace(ON_PLAN, ''), job.unit)} on plan; longer up the slope`
                : echoOf(typed, job.unit)
            }
            commit={(typed) => edit({ kind: 'set-plane-field', plane_id: plane.id, field, typed })}
          />
        </At>
      ))}
      {!isRectangle(plane) && (
        <At xPx={drawn.ridge.from.xPx - 74} yPx={drawn.ridge.from.yPx - OFF_PX}>
          <span className="flex items-center gap-1 text-xs text-ink-2">
            <span aria-hidden="true">inset</span>
            <TypedField
              label="Ridge inset from the left eave corner"
              value={plane.outline.ridge_left.typed}
              width={64}
              echo={(typed) => echoOf(typed, job.unit)}
              commit={(typed) =>
                edit({ kind: 'set-plane-field', plane_id: plane.id, field: 'ridge_left', typed })
              }
            />
          </span>
        </At>
      )}
    </>
  );
}
