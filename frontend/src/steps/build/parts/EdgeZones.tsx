/** The roof's edges where the wind pulls harder and spans are shorter, as pale bands. */
import { type Camera, type PointM, toScreen } from '@/drawing/camera';

interface EdgeZonesProps {
  camera: Camera;
  edgeM: number;
  corners: PointM[];
}

export function EdgeZones({ camera, edgeM, corners }: EdgeZonesProps) {
  if (edgeM <= 0) return null;
  const xs = corners.map((c) => c.xM);
  const ys = corners.map((c) => c.yM);
  const from = toScreen(camera, { xM: Math.min(...xs), yM: Math.max(...ys) });
  const to = toScreen(camera, { xM: Math.max(...xs), yM: Math.min(...ys) });
  const edgePx = edgeM * camera.pxPerM;
  return (
    <path
      aria-hidden="true"
      d={`M${from.xPx} ${from.yPx} H${to.xPx} V${to.yPx} H${from.xPx} Z M${from.xPx + edgePx} ${from.yPx + edgePx} V${to.yPx - edgePx} H${to.xPx - edgePx} V${from.yPx + edgePx} Z`}
      fill="var(--color-copper)"
      fillOpacity="0.07"
      fillRule="evenodd"
      pointerEvents="none"
    />
  );
}
