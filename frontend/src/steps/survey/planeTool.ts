/**
 * What is in hand on the drawing of a plane, and what a click does with it: a small state
 * machine, so that each gesture ends in one edit, one reading to type, or one question.
 */
import type { Edit, Schemas } from '@/api/client';
import type { PointM } from '@/drawing/camera';

export type ObstructionKind = Schemas['ObstructionKind'];
export type ReadingKind = Schemas['ReadingKind'];

/** A reading that waits to be typed. */
export interface Wanted {
  reading: ReadingKind;
  at: number[];
}

export type PlaneTool =
  | { kind: 'look' }
  | { kind: 'place'; what: ObstructionKind }
  | { kind: 'sketch'; points: PointM[] }
  | { kind: 'keep-out'; points: PointM[] }
  | { kind: 'old-array'; existingId: string }
  | { kind: 'diagonal'; from: number | null }
  | { kind: 'offset' | 'along' | 'in-line'; corner: number | null }
  | { kind: 'square' }
  | { kind: 'parallel'; edge: number | null };

export type PlaneClick =
  | { on: 'spot'; spot: PointM }
  | { on: 'corner'; corner: number }
  | { on: 'edge'; edge: number }
  | { on: 'done' };

export interface Outcome {
  tool: PlaneTool;
  edit?: Edit;
  wanted?: Wanted;
  /** A zone was closed: its reason is asked for. */
  zone?: PointM[];
}

export const LOOK: PlaneTool = { kind: 'look' };
/** A click this near the first corner closes a sketch, metres of the drawing. */
export const CLOSES_WITHIN_M = 0.35;

const plain = (p: PointM) => ({
  x_m: Math.round(p.xM * 1000) / 1000,
  y_m: Math.round(p.yM * 1000) / 1000,
});
const near = (a: PointM | undefined, b: PointM) =>
  a !== undefined && Math.hypot(a.xM - b.xM, a.yM - b.yM) < CLOSES_WITHIN_M;

export function clicked(
  planeId: string,
  tool: PlaneTool,
  click: PlaneClick,
  squares: readonly number[],
): Outcome {
  switch (tool.kind) {
    case 'place':
      return click.on === 'spot' ? placed(planeId, tool.what, click.spot) : { tool };
    case 'old-array':
      return click.on === 'spot'
        ? {
            tool: LOOK,
            edit: {
              kind: 'draw-existing',
              plane_id: planeId,
              existing_id: tool.existingId,
              left_m: plain(click.spot).x_m,
              bottom_m: plain(click.spot).y_m,
            },
          }
        : { tool };
    case 'sketch':
    case 'keep-out':
      return drawnOn(planeId, tool, click);
    case 'diagonal':
      if (click.on !== 'corner') return { tool };
      if (tool.from === null) return { tool: { kind: 'diagonal', from: click.corner } };
      if (tool.from === click.corner) return { tool: { kind: 'diagonal', from: null } };
      return { tool: LOOK, wanted: { reading: 'diagonal', at: [tool.from, click.corner] } };
    case 'offset':
    case 'along':
    case 'in-line':
      return fromCorner(planeId, tool, click);
    case 'square':
      if (click.on !== 'corner') return { tool };
      return {
        tool,
        edit: mark(planeId, 'right_angle', [click.corner], !squares.includes(click.corner)),
      };
    case 'parallel':
      if (click.on !== 'edge') return { tool };
      if (tool.edge === null) return { tool: { kind: 'parallel', edge: click.edge } };
      if (tool.edge === click.edge) return { tool: { kind: 'parallel', edge: null } };
      return { tool: LOOK, edit: mark(planeId, 'parallel', [tool.edge, click.edge], true) };
    case 'look':
      return { tool };
  }
}

function placed(planeId: string, what: ObstructionKind, spot: PointM): Outcome {
  const rounded = (metres: number) => Math.round(metres * 100) / 100;
  return {
    tool: LOOK,
    edit: {
      kind: 'add-obstruction',
      plane_id: planeId,
      obstruction_kind: what,
      left_m: rounded(spot.xM),
      bottom_m: rounded(spot.yM),
    },
  };
}

function drawnOn(
  planeId: string,
  tool: { kind: 'sketch' | 'keep-out'; points: PointM[] },
  click: PlaneClick,
): Outcome {
  const { kind, points } = tool;
  const spot = click.on === 'spot' ? click.spot : null;
  const closes = click.on === 'done' || (spot !== null && near(points[0], spot));
  if (closes && points.length >= 3) {
    if (kind === 'keep-out') return { tool: LOOK, zone: points };
    return {
      tool: LOOK,
      edit: { kind: 'sketch-outline', plane_id: planeId, corners: points.map(plain) },
    };
  }
  // The second click of a double click adds nothing.
  if (spot === null || near(points.at(-1), spot)) return { tool };
  return { tool: { kind, points: [...points, spot] } };
}

function fromCorner(
  planeId: string,
  tool: { kind: 'offset' | 'along' | 'in-line'; corner: number | null },
  click: PlaneClick,
): Outcome {
  if (click.on === 'corner') return { tool: { ...tool, corner: click.corner } };
  if (click.on !== 'edge' || tool.corner === null) return { tool };
  const at = [tool.corner, click.edge];
  if (tool.kind === 'in-line') return { tool: LOOK, edit: mark(planeId, 'on_line', at, true) };
  return { tool: LOOK, wanted: { reading: tool.kind, at } };
}

export const mark = (plane_id: string, reading: ReadingKind, at: number[], on: boolean): Edit => ({
  kind: 'mark-outline',
  plane_id,
  reading,
  at,
  on,
});

/** What to do next, in words. */
export function toolHint(tool: PlaneTool, what: string): string {
  switch (tool.kind) {
    case 'look':
      return '';
    case 'place':
      return `Click where the ${what.toLowerCase()} stands.`;
    case 'old-array':
      return 'Click where its lower left corner lies.';
    case 'sketch':
      return tool.points.length < 3
        ? 'Click the corners in order; scale does not matter.'
        : 'Click on, or click the first corner (or press Enter) to close.';
    case 'keep-out':
      return tool.points.length < 3
        ? 'Click round the zone that stays free.'
        : 'Click on, or click the first point (or press Enter) to close.';
    case 'diagonal':
      return tool.from === null ? 'Click the first corner.' : 'Click the corner across.';
    case 'offset':
      return tool.corner === null
        ? 'Click the corner that was measured to.'
        : 'Click the side it was measured square off.';
    case 'along':
      return tool.corner === null
        ? 'Click the corner that was measured to.'
        : 'Click the side it was measured along.';
    case 'in-line':
      return tool.corner === null ? 'Click the corner.' : 'Click the side it lies in line with.';
    case 'square':
      return 'Click the corners that are square; click again to take it back.';
    case 'parallel':
      return tool.edge === null ? 'Click one side.' : 'Click the side parallel to it.';
  }
}
