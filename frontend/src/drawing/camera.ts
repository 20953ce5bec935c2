/** From plane metres to pixels and back: one scale, y up the slope is y up the screen. */

export interface PointM {
  xM: number;
  yM: number;
}

export interface PointPx {
  xPx: number;
  yPx: number;
}

export interface Camera {
  pxPerM: number;
  originPx: PointPx;
}

export interface Frame {
  widthPx: number;
  heightPx: number;
  paddingPx: { left: number; right: number; top: number; bottom: number };
}

/** The camera that fits the points into the frame, centred. */
export function fitCamera(points: PointM[], frame: Frame): Camera {
  const xs = points.map((p) => p.xM);
  const ys = points.map((p) => p.yM);
  const [left, right] = [Math.min(...xs), Math.max(...xs)];
  const [low, high] = [Math.min(...ys), Math.max(...ys)];
  const { paddingPx: pad } = frame;
  const widePx = Math.max(frame.widthPx - pad.left - pad.right, 1);
  const tallPx = Math.max(frame.heightPx - pad.top - pad.bottom, 1);
  const pxPerM = Math.min(
    widePx / Math.max(right - left, 1e-6),
    tallPx / Math.max(high - low, 1e-6),
  );
  return {
    pxPerM,
    originPx: {
      xPx: pad.left + (widePx - (right - left) * pxPerM) / 2 - left * pxPerM,
      yPx: pad.top + (tallPx + (high - low) * pxPerM) / 2 + low * pxPerM,
    },
  };
}

export const toScreen = (camera: Camera, point: PointM): PointPx => ({
  xPx: camera.originPx.xPx + point.xM * camera.pxPerM,
  yPx: camera.originPx.yPx - point.yM * camera.pxPerM,
});

export const toPlane = (camera: Camera, point: PointPx): PointM => ({
  xM: (point.xPx - camera.originPx.xPx) / camera.pxPerM,
  yM: (camera.originPx.yPx - point.yPx) / camera.pxPerM,
});
