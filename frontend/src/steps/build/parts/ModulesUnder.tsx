/** Modules as light outlines under their rails. */
import type { Schemas } from '@/api/client';
import { type Camera, toScreen } from '@/drawing/camera';
import { sizeOf } from '@/plan/modules';

interface ModulesUnderProps {
  camera: Camera;
  array: Schemas['PlaneArray'];
  module: Schemas['ModuleSheet'];
}

export function ModulesUnder({ camera, array, module }: ModulesUnderProps) {
  return (
    <g aria-hidden="true">
      {array.modules
        .filter((m) => m.present)
        .map((m) => {
          const { widthM, heightM } = sizeOf(module, m.orientation, array.leg_tilt_deg);
          const corner = toScreen(camera, { xM: m.x_m, yM: m.y_m + heightM });
          return (
            <rect
              key={m.id}
              x={corner.xPx}
              y={corner.yPx}
              width={widthM * camera.pxPerM}
              height={heightM * camera.pxPerM}
              fill="var(--color-module)"
              fillOpacity="0.55"
              stroke="var(--color-field)"
            />
          );
        })}
    </g>
  );
}
