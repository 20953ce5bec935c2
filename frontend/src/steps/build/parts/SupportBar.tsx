/** Under the plan: how many mounts land on each support, numbered where there is room. */
import type { Schemas } from '@/api/client';
import { type Camera, type PointM, toScreen } from '@/drawing/camera';

interface SupportBarProps {
  camera: Camera;
  racked: Schemas['PlaneRackingView'];
  corners: PointM[];
}

const PER_MOUNT_PX = 4;
const BAR_PX = 9;
const LABEL_PX = 18;

export function SupportBar({ camera, racked, corners }: SupportBarProps) {
  if (racked.up_slope || racked.supports_m.length === 0) return null;
  const eaveM = Math.min(...corners.map((c) => c.yM));
  const base = toScreen(camera, { xM: 0, yM: eaveM }).yPx + 8;
  const stepPx = ((racked.supports_m[1] ?? 1) - (racked.supports_m[0] ?? 0)) * camera.pxPerM;
  const every = Math.max(1, Math.ceil(LABEL_PX / Math.max(stepPx, 1)));
  return (
    <g aria-hidden="true" pointerEvents="none">
      {racked.supports_m.map((x, i) => {
        const { xPx } = toScreen(camera, { xM: x, yM: eaveM });
        const count = racked.on_support[i] ?? 0;
        return (
          <g key={x}>
            <rect
              x={xPx - BAR_PX / 2}
              y={base}
              width={BAR_PX}
              height={count * PER_MOUNT_PX}
              fill="var(--color-patina)"
            />
            {i % every === 0 && (
              <text
                x={xPx}
                y={base + Math.max(0, ...racked.on_support) * PER_MOUNT_PX + 13}
                textAnchor="middle"
                fontSize="12"
                className="fill-ink-2"
              >
                {i + 1}
              </text>
            )}
          </g>
        );
      })}
      {racked.unusable_m.map((x) => {
        const { xPx } = toScreen(camera, { xM: x, yM: eaveM });
        return (
          <path
            key={x}
            d={`M${xPx - 4} ${base} l8 8 m0 -8 l-8 8`}
            stroke="var(--color-stop)"
            strokeWidth="2"
          />
        );
      })}
    </g>
  );
}
