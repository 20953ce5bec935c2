/** A surveyed plane as the drawing wants it. */
import type { OptionReport, RoofPlane, Schemas, WorkedOut } from '@/api/client';
import type { BoxM, PlaneScene } from '@/drawing/RoofGround';
import type { DrawnObstruction } from '@/drawing/RoofOutline';

export type PlaneSurvey = Schemas['PlaneSurvey'];

export const planeSurveyOf = (state: WorkedOut, planeId: string): PlaneSurvey | undefined =>
  state.survey.planes.find((p) => p.plane_id === planeId);

export function drawnObstruction(
  o: Schemas['Obstruction'],
  seen: Schemas['ObstructionView'],
): DrawnObstruction {
  const { box, round } = seen;
  const [widthM, depthM] = [box.right_m - box.left_m, box.top_m - box.bottom_m];
  return {
    id: o.id,
    name: o.name,
    round,
    leftM: box.left_m + (round ? widthM / 2 : 0),
    bottomM: box.bottom_m + (round ? depthM / 2 : 0),
    widthM,
    depthM,
  };
}

const boxM = (box: Schemas['Box']): BoxM => ({
  leftM: box.left_m,
  bottomM: box.bottom_m,
  rightM: box.right_m,
  topM: box.top_m,
});

export function sceneOf(plane: RoofPlane, state: WorkedOut, report: OptionReport): PlaneScene {
  const seen = planeSurveyOf(state, plane.id);
  const view = report.planes.find((p) => p.plane_id === plane.id);
  const note = view?.note ?? '';
  return {
    corners: (seen?.corners ?? []).map((c) => ({ xM: c.x_m, yM: c.y_m })),
    edges: (seen?.edges ?? []).map((e, i) => {
      const path = i === view?.path_edge;
      const ownM = plane.setbacks[e.kind].value_m;
      const widthM = path ? Math.max(ownM, plane.access?.width.value_m ?? 0) : ownM;
      // A sketch without scale has no strips to scale.
      return { kind: e.kind, state: e.state, stripM: seen?.closing === 'open' ? 0 : widthM, path };
    }),
    azimuthDeg: plane.azimuth_deg,
    obstructions: plane.obstructions.flatMap((o, i) => {
      const view = seen?.obstructions[i];
      return view ? [drawnObstruction(o, view)] : [];
    }),
    keepOuts: plane.keep_outs.map((zone) => ({
      id: zone.id,
      reason: zone.reason,
      ring: zone.corners.map((c) => ({ xM: c.x_m, yM: c.y_m })),
    })),
    existing: plane.existing.flatMap((rows, i) => {
      const box = seen?.existing[i];
      return box
        ? [{ id: rows.existing_id, box: boxM(box), columns: rows.columns, rows: rows.rows }]
        : [];
    }),
    raftersXM: seen?.rafters_x_m ?? [],
    purlinsYM: seen?.purlins_y_m ?? [],
    ribsXM: seen?.ribs_x_m ?? [],
    note,
  };
}
