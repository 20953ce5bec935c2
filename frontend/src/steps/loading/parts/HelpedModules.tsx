/** The modules of a plane by the light shade leaves them; those with an optimizer are marked. */
import type { Schemas } from '@/api/client';
import { type Camera, toScreen } from '@/drawing/camera';
import { shadeTint } from '@/drawing/shadeTint';
import { sizeOf } from '@/plan/modules';
import { figure } from '@/units/format';

interface HelpedModulesProps {
  camera: Camera;
  array: Schemas['PlaneArray'];
  module: Schemas['ModuleSheet'];
  shares: readonly Schemas['ModuleShare'][];
  helped: readonly string[];
  onToggle: (id: string) => void;
}

const BADGE_PX = 8;

export function HelpedModules({
  camera,
  array,
  module,
  shares,
  helped,
  onToggle,
}: HelpedModulesProps) {
  const worst = Math.max(...shares.map((s) => 1 - s.light_frac));
  return (
    <g>
      {array.modules.map((m, i) => {
        const mine = shares.find((s) => s.module_id === m.id);
        if (!m.present || !mine) return null;
        const { widthM, heightM } = sizeOf(module, m.orientation, array.leg_tilt_deg);
        const corner = toScreen(camera, { xM: m.x_m, yM: m.y_m + heightM });
        const [w, h] = [widthM * camera.pxPerM, heightM * camera.pxPerM];
        const { fill, ink } = shadeTint(1 - mine.light_frac, worst);
        const has = helped.includes(m.id);
        const told = `${figure(mine.light_frac * 100)} %`;
        return (
          <g
            key={m.id}
            role="checkbox"
            tabIndex={0}
            aria-checked={has}
            aria-label={`Module ${i + 1}, ${told} of its light: optimizer`}
            className="cursor-pointer"
            onClick={() => onToggle(m.id)}
            onKeyDown={(event) => {
              if (event.key === 'Enter' || event.key === ' ') {
                event.preventDefault();
                onToggle(m.id);
              }
            }}
          >
            <rect
              x={corner.xPx}
              y={corner.yPx}
              width={w}
              height={h}
              fill={fill}
              stroke={has ? 'var(--color-patina)' : 'var(--color-ink-3)'}
              strokeWidth={has ? 3.5 : 1.2}
            />
            {has && (
              <rect
                x={corner.xPx + w - BADGE_PX - 5}
                y={corner.yPx + 5}
                width={BADGE_PX}
                height={BADGE_PX}
                transform={`rotate(45 ${corner.xPx + w - BADGE_PX / 2 - 5} ${corner.yPx + BADGE_PX / 2 + 5})`}
                fill="var(--color-patina)"
                stroke="var(--color-sheet)"
              />
            )}
            {w > 30 && (
              <text
                x={corner.xPx + w / 2}
                y={corner.yPx + h / 2 + 4.5}
                fontSize="12.5"
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
