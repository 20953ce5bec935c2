/** What is in hand over the modules, and what is held; kept apart from the drawing of it. */
import type { Edit, Schemas } from '@/api/client';
import { type BoxM, overlaps } from '@/drawing/RoofGround';
import { type Orientation, sizeOf } from '@/plan/modules';

export type Hand =
  /** A click takes a module off or puts it back. */
  | { kind: 'toggle' }
  /** A click takes hold of a module, or lets it go. */
  | { kind: 'hold' }
  /** A click sets a module down. */
  | { kind: 'add'; orientation: Orientation };

export const TOGGLE: Hand = { kind: 'toggle' };

type PlacedModule = Schemas['PlacedModule'];
type ModuleSheet = Schemas['ModuleSheet'];

/** Bottoms nearer than this stand in one row. */
const SAME_ROW_M = 0.05;
/** Edges nearer than this stand in one line. */
const SAME_LINE_M = 0.02;

export function boxOf(module: PlacedModule, sheet: ModuleSheet, legTiltDeg = 0): BoxM {
  const { widthM, heightM } = sizeOf(sheet, module.orientation, legTiltDeg);
  return {
    leftM: module.x_m,
    bottomM: module.y_m,
    rightM: module.x_m + widthM,
    topM: module.y_m + heightM,
  };
}

/** The modules one over the other on a table, the lowest first; on a roof the one alone. */
export function columnOf(
  array: Schemas['PlaneArray'],
  sheet: ModuleSheet,
  id: string,
): PlacedModule[] {
  const one = array.modules.find((m) => m.id === id);
  if (!one) return [];
  if ((array.table?.rows ?? 1) === 1) return [one];
  const gapM = array.gap_in_row.value_m * Math.cos((array.leg_tilt_deg * Math.PI) / 180);
  const frontM = (m: PlacedModule) =>
    m.y_m - m.tier * (sizeOf(sheet, m.orientation, array.leg_tilt_deg).heightM + gapM);
  return array.modules
    .filter(
      (m) =>
        Math.abs(m.x_m - one.x_m) < SAME_LINE_M && Math.abs(frontM(m) - frontM(one)) < SAME_LINE_M,
    )
    .sort((a, b) => a.tier - b.tier);
}

/** The held ids with one taken hold of, or let go if it was held. */
export const switched = (held: readonly string[], id: string): string[] =>
  held.includes(id) ? held.filter((h) => h !== id) : [...held, id];

/** All of a module's row. */
export function rowOf(modules: readonly PlacedModule[], id: string): string[] {
  const one = modules.find((m) => m.id === id);
  return modules
    .filter((m) => m.present && one && Math.abs(m.y_m - one.y_m) < SAME_ROW_M)
    .map((m) => m.id);
}

/** What a box drawn over the roof takes hold of. */
export function inBox(
  modules: readonly PlacedModule[],
  sheet: ModuleSheet,
  box: BoxM,
  legTiltDeg = 0,
): string[] {
  return modules
    .filter((m) => m.present && overlaps(boxOf(m, sheet, legTiltDeg), box))
    .map((m) => m.id);
}

/** A module, on tables a column of them, set down beside another, a gap to its right. */
export function besideEdit(
  optionId: string,
  array: Schemas['PlaneArray'],
  sheet: ModuleSheet,
  id: string,
  orientation: Orientation,
): Edit | null {
  const module = columnOf(array, sheet, id)[0];
  if (!module) return null;
  const xM = boxOf(module, sheet).rightM + array.gap_in_row.value_m;
  return {
    kind: 'add-module',
    option_id: optionId,
    plane_id: array.plane_id,
    at: { x_m: xM, y_m: module.y_m, orientation },
  };
}
