/** Strings as threads through module centres, numbered from the positive end. */
import type { Schemas } from '@/api/client';
import { type Camera, toScreen } from '@/drawing/camera';
import { ModuleShape } from '@/drawing/ModuleShape';
import { threadOf } from '@/drawing/threads';
import { sizeOf } from '@/plan/modules';

interface ThreadsProps {
  camera: Camera;
  array: Schemas['PlaneArray'];
  module: Schemas['ModuleSheet'];
  strings: Schemas['ModuleString'][];
}

export function Threads({ camera, array, module, strings }: ThreadsProps) {
  const centre = new Map(
    array.modules.map((m) => {
      const { widthM, heightM } = sizeOf(module, m.orientation, array.leg_tilt_deg);
      return [m.id, toScreen(camera, { xM: m.x_m + widthM / 2, yM: m.y_m + heightM / 2 })];
    }),
  );
  const radiusPx = Math.min(13, (module.short_m * camera.pxPerM) / 2 - 2);
  return (
    <g>
      {array.modules
        .filter((m) => m.present)
        .map((m) => (
          <ModuleShape
            key={m.id}
            camera={camera}
            xM={m.x_m}
            yM={m.y_m}
            {...sizeOf(module, m.orientation, array.leg_tilt_deg)}
            substrings={module.bypass_diodes}
            halfCut={module.half_cut}
            state="on"
          />
        ))}
      {strings.map((string, index) => {
        const { colour, dash } = threadOf(index);
        const points = string.module_ids.flatMap((id) => centre.get(id) ?? []);
        const first = points[0];
        // A string of another plane.
        if (!first) return null;
        return (
          <g
            key={string.tag}
            role="img"
            aria-label={`String ${string.tag}, ${points.length} modules in series on tracker ${string.tracker_number}`}
          >
            <polyline
              points={points.map((p) => `${p.xPx},${p.yPx}`).join(' ')}
              fill="none"
              stroke={colour}
              strokeWidth="3"
              strokeDasharray={dash || undefined}
            />
            {points.map((p, i) => (
              <g key={string.module_ids[i]} transform={`translate(${p.xPx} ${p.yPx})`}>
                <circle r={radiusPx} fill="var(--color-sheet)" stroke={colour} strokeWidth="2" />
                <text
                  y="4.2"
                  fontSize={radiusPx > 11 ? 12.5 : 11}
                  fontWeight="600"
                  fill={colour}
                  textAnchor="middle"
                >
                  {string.tag}
                  {i + 1}
                </text>
              </g>
            ))}
            {first && (
              <text
                x={first.xPx - radiusPx - 2}
                y={first.yPx - radiusPx + 2}
                fontSize="17"
                fontWeight="600"
                fill={colour}
                textAnchor="middle"
              >
                +
              </text>
            )}
          </g>
        );
      })}
    </g>
  );
}
