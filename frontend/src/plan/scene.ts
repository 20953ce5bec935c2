/** A surveyed plane as the drawing wants it. */
import type { OptionReport, RoofPlane, Schemas } from '@/api/client';
import type { PlaneScene } from '@/drawing/PlaneCanvas';
import type { DrawnObstruction } from '@/drawing/RoofOutline';

const ROUND: readonly Schemas['ObstructionKind'][] = ['vent', 'flue', 'dish'];
export const isRound = (kind: Schemas['ObstructionKind']) => ROUND.includes(kind);

export function drawnObstruction(o: Schemas['Obstruction']): DrawnObstruction {
  return {
    id: o.id,
    name: o.name,
    round: isRound(o.kind),
    leftM: o.left.value_m,
    bottomM: o.bottom.value_m,
    widthM: o.width.value_m,
    depthM: o.depth.value_m,
  };
}

export function sceneOf(plane: RoofPlane, report: OptionReport): PlaneScene {
  const view = report.planes.find((p) => p.plane_id === plane.id);
  const { eave, rake, ridge } = plane.setbacks;
  return {
    corners: (view?.corners ?? []).map((c) => ({ xM: c.x_m, yM: c.y_m })),
    stripsM: [eave.value_m, rake.value_m, ridge.value_m, rake.value_m],
    azimuthDeg: plane.azimuth_deg,
    obstructions: plane.obstructions.map(drawnObstruction),
    note: view?.note ?? '',
  };
}
