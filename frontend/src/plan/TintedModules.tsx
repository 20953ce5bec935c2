/** The modules of a plane tinted by what they get, with a figure in each; one can be picked. */
import type { Schemas } from '@/api/client';
import { type Camera, toScreen } from '@/drawing/camera';
import type { Tint } from '@/drawing/shadeTint';
import { pressable } from '@/ui/pressable';
import { sizeOf } from './modules';

export interface Tile {
  tint: Tint;
  /** The figure in it. */
  told: string;
  /** What a screen reader says of it. */
  label: string;
  picked: boolean;
}

interface TintedModulesProps {
  camera: Camera;
  array: Schemas['PlaneArray'];
  module: Schemas['ModuleSheet'];
  /** One is looked at, or any number are marked. */
  pick: 'one' | 'any';
  tileOf: (id: string, index: number) => Tile | null;
  onPick: (id: string) => void;
}

const BADGE_PX = 8;

export function TintedModules({ camera, array, module, pick, tileOf, onPick }: TintedModulesProps) {
  const stroke = pick === 'one' ? 'var(--color-copper)' : 'var(--color-patina)';
  return (
    <g>
      {array.modules.map((m, i) => {
        const tile = m.present ? tileOf(m.id, i) : null;
        if (!tile) return null;
        const { widthM, heightM } = sizeOf(module, m.orientation, array.leg_tilt_deg);
        const corner = toScreen(camera, { xM: m.x_m, yM: m.y_m + heightM });
        const [w, h] = [widthM * camera.pxPerM, heightM * camera.pxPerM];
        const state =
          pick === 'one'
            ? ({ role: 'button', 'aria-pressed': tile.picked } as const)
            : ({ role: 'checkbox', 'aria-checked': tile.picked } as const);
        return (
          <g
            key={m.id}
            {...state}
            aria-label={tile.label}
            className="cursor-pointer"
            {...pressable(() => onPick(m.id))}
          >
            <rect
              x={corner.xPx}
              y={corner.yPx}
              width={w}
              height={h}
              fill={tile.tint.fill}
              stroke={tile.picked ? stroke : 'var(--color-ink-3)'}
              strokeWidth={tile.picked ? 3 : 1.2}
            />
            {pick === 'any' && tile.picked && (
              <Badge xPx={corner.xPx + w - BADGE_PX - 5} yPx={corner.yPx + 5} />
            )}
            {w > 34 && (
              <text
                x={corner.xPx + w / 2}
                y={corner.yPx + h / 2 + 4.5}
                fontSize="13"
                fontWeight="600"
                textAnchor="middle"
                fill={tile.tint.ink}
              >
                {tile.told}
              </text>
            )}
          </g>
        );
      })}
    </g>
  );
}

/** A mark besides colour and stroke. */
function Badge({ xPx, yPx }: { xPx: number; yPx: number }) {
  return (
    <rect
      x={xPx}
      y={yPx}
      width={BADGE_PX}
      height={BADGE_PX}
      transform={`rotate(45 ${xPx + BADGE_PX / 2} ${yPx + BADGE_PX / 2})`}
      fill="var(--color-patina)"
      stroke="var(--color-sheet)"
    />
  );
}
