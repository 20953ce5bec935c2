/** Where a moved box catches: the lines of what lies around it, each with what it is. */
import type { PointM } from './camera';
import type { BoxM } from './RoofGround';
import type { DrawnEdge } from './RoofOutline';

/** An edge that leans less than this is upright, or level. */
const LEAN = 0.02;

export interface SnapLines {
  /** Places for a left edge, metres along the eave. */
  xs: number[];
  /** Places for a bottom edge, metres up the slope. */
  ys: number[];
}

export interface Snapped {
  dxM: number;
  dyM: number;
  /** The lines it caught, to be drawn; null where it is free. */
  xM: number | null;
  yM: number | null;
}

/** Where the strips along upright and level edges end: for a left, right, lower, upper side. */
export interface StripLines {
  lefts: number[];
  rights: number[];
  bottoms: number[];
  tops: number[];
}

export interface SnapAround {
  /** Modules that stay where they are. */
  others: BoxM[];
  strips: StripLines;
  /** What mounts want under them: rafters, seams, ribs upright, purlins level. */
  uprightXM: number[];
  levelYM: number[];
  gapInRowM: number;
  gapBetweenRowsM: number;
}

/** The strips of a roof whose outline runs anticlockwise: inside is to the left. */
export function stripLines(corners: PointM[], edges: DrawnEdge[]): StripLines {
  const lines: StripLines = { lefts: [], rights: [], bottoms: [], tops: [] };
  edges.forEach((edge, i) => {
    const [a, b] = [corners[i], corners[(i + 1) % corners.length]];
    if (!a || !b) return;
    const [dx, dy] = [b.xM - a.xM, b.yM - a.yM];
    const length = Math.hypot(dx, dy);
    if (Math.abs(dy) < LEAN * length) {
      if (dx > 0) lines.bottoms.push(Math.max(a.yM, b.yM) + edge.stripM);
      else lines.tops.push(Math.min(a.yM, b.yM) - edge.stripM);
    } else if (Math.abs(dx) < LEAN * length) {
      if (dy > 0) lines.rights.push(Math.min(a.xM, b.xM) - edge.stripM);
      else lines.lefts.push(Math.max(a.xM, b.xM) + edge.stripM);
    }
  });
  return lines;
}

/** Columns and rows of the others, places a gap beside and above them, strips and what mounts sit on. */
export function snapLines(box: BoxM, around: SnapAround): SnapLines {
  const [wide, tall] = [box.rightM - box.leftM, box.topM - box.bottomM];
  const xs = around.uprightXM.flatMap((x) => [x, x - wide]);
  const ys = around.levelYM.flatMap((y) => [y, y - tall]);
  for (const other of around.others) {
    xs.push(other.leftM, other.rightM - wide);
    xs.push(other.rightM + around.gapInRowM, other.leftM - around.gapInRowM - wide);
    ys.push(other.bottomM, other.topM - tall);
    ys.push(other.topM + around.gapBetweenRowsM, other.bottomM - around.gapBetweenRowsM - tall);
  }
  const { lefts, rights, bottoms, tops } = around.strips;
  xs.push(...lefts, ...rights.map((x) => x - wide));
  ys.push(...bottoms, ...tops.map((y) => y - tall));
  return { xs, ys };
}

function nearest(at: number, lines: number[], withinM: number): number | null {
  let best: number | null = null;
  for (const line of lines)
    if (
      Math.abs(line - at) <= withinM &&
      (best === null || Math.abs(line - at) < Math.abs(best - at))
    )
      best = line;
  return best;
}

/** The shift of a box that catches the nearest lines within reach, or the shift as it is. */
export function snapped(
  box: BoxM,
  shift: { dxM: number; dyM: number },
  lines: SnapLines,
  withinM: number,
): Snapped {
  const xM = nearest(box.leftM + shift.dxM, lines.xs, withinM);
  const yM = nearest(box.bottomM + shift.dyM, lines.ys, withinM);
  return {
    dxM: xM === null ? shift.dxM : xM - box.leftM,
    dyM: yM === null ? shift.dyM : yM - box.bottomM,
    xM,
    yM,
  };
}

/** The box round some boxes. */
export function boxAround(boxes: BoxM[]): BoxM {
  return {
    leftM: Math.min(...boxes.map((b) => b.leftM)),
    bottomM: Math.min(...boxes.map((b) => b.bottomM)),
    rightM: Math.max(...boxes.map((b) => b.rightM)),
    topM: Math.max(...boxes.map((b) => b.topM)),
  };
}
