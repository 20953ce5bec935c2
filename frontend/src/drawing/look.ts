/** Looking closer at a drawing: a zoom and a shift on top of the camera that fits it all. */
import type { Camera, PointPx } from './camera';

export interface Look {
  zoom: number;
  dxPx: number;
  dyPx: number;
}

export const WHOLE: Look = { zoom: 1, dxPx: 0, dyPx: 0 };
const CLOSEST = 24;

/** The camera as looked through. */
export const lookedThrough = (camera: Camera, look: Look): Camera => ({
  pxPerM: camera.pxPerM * look.zoom,
  originPx: {
    xPx: camera.originPx.xPx * look.zoom + look.dxPx,
    yPx: camera.originPx.yPx * look.zoom + look.dyPx,
  },
});

/** The look closer by a factor, the point under the hand staying where it is. */
export function zoomedAt(look: Look, factor: number, at: PointPx): Look {
  const zoom = Math.min(Math.max(look.zoom * factor, 0.5), CLOSEST);
  const by = zoom / look.zoom;
  return {
    zoom,
    dxPx: at.xPx + (look.dxPx - at.xPx) * by,
    dyPx: at.yPx + (look.dyPx - at.yPx) * by,
  };
}

export const shifted = (look: Look, dxPx: number, dyPx: number): Look => ({
  ...look,
  dxPx: look.dxPx + dxPx,
  dyPx: look.dyPx + dyPx,
});
