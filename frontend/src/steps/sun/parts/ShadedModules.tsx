/** The modules of a plane, tinted by what shade takes, with the figure in each. */

import type { Schemas } from '@/api/client';
import type { ShadeReport } from '@/api/sunQueries';
import { type Camera, toScreen } from '@/drawing/camera';
import { shadeTint } from '@/drawing/shadeTint';
import { sizeOf } from '@/plan/modules';
import { figure } from '@/units/format';
import { lostOf, type Period } from '../periods';

interface ShadedModulesProps {
  camera: Camera;
  array: Schemas['PlaneArray'];
  module: Schemas['ModuleSheet'];
  shade: ShadeReport;
  period: Period;
  chosenId: string;
  onChoose: (id: string) => void;
}

export function ShadedModules({
  camera,
  array,
  module,
  shade,
  period,
  chosenId,
  onChoose,
}: ShadedModulesProps) {
  const worst = Math.max(...shade.modules.map((m) => lostOf(m, period)));
  return (
    <g>
      {array.modules.map((m, i) => {
        const mine = shade.modules.find((s) => s.module_id === m.id);
        if (!m.present || !mine) return null;
        const { widthM, heightM } = sizeOf(module, m.orientation, array.leg_tilt_deg);
        const corner = toScreen(camera, { xM: m.x_m, yM: m.y_m + heightM });
        const [w, h] = [widthM * camera.pxPerM, heightM * camera.pxPerM];
        const lost = lostOf(mine, period);
        const { fill, ink } = shadeTint(lost, worst);
        const chosen = m.id === chosenId;
        const told = `${figure(lost * 100, 1)} %`;
        return (
          <g
            key={m.id}
            role="button"
            tabIndex={0}
            aria-label={`Module ${i + 1}: shade takes ${told}`}
            aria-pressed={chosen}
            className="cursor-pointer"
            onClick={() => onChoose(m.id)}
            onKeyDown={(event) => {
              if (event.key === 'Enter' || event.key === ' ') {
                event.preventDefault();
                onChoose(m.id);
              }
            }}
          >
            <rect
              x={corner.xPx}
              y={corner.yPx}
              width={w}
              height={h}
              fill={fill}
              stroke={chosen ? 'var(--color-copper)' : 'var(--color-ink-3)'}
              strokeWidth={chosen ? 3 : 1.2}
            />
            {w > 34 && (
              <text
                x={corner.xPx + w / 2}
                y={corner.yPx + h / 2 + 4.5}
                fontSize="13"
                fontWeight="600"
                textAnchor="middle"
                fill={ink}
              >
                {told}
              </text>
            )}
          </g>
        );
      })}
    </g>
  );
}
