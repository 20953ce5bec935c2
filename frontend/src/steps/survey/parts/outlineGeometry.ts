/** Where the readings of an outline are drawn: along sides, across, square off, in pixels. */
import type { Schemas } from '@/api/client';
import { type Camera, type PointM, type PointPx, toScreen } from '@/drawing/camera';

type Corner = Schemas['CornerView'];

export const EDGE_OFF_PX = 40;
/** A side shorter than this on the screen carries its field itself, without a dimension line. */
const ROOM_PX = 124;

export interface SideLine {
  edge: number;
  from: PointPx;
  to: PointPx;
  offPx: number;
  roomy: boolean;
  /** Whether it runs across the screen rather than up it. */
  level: boolean;
  /** Where the side's name goes, and which end of the word stands there. */
  name: PointPx;
  anchor: 'start' | 'middle' | 'end';
}

const pointM = (c: Corner): PointM => ({ xM: c.x_m, yM: c.y_m });

export function cornerPx(camera: Camera, corners: Corner[], index: number): PointPx {
  const corner = corners[index % corners.length];
  return toScreen(camera, corner ? pointM(corner) : { xM: 0, yM: 0 });
}

/** Each side's dimension line outside the outline; corners run anticlockwise. */
export function sideLines(camera: Camera, corners: Corner[]): SideLine[] {
  return corners.map((_, edge) => {
    // Turned round, so that outside is to the right of from → to on the screen.
    const [to, from] = [cornerPx(camera, corners, edge), cornerPx(camera, corners, edge + 1)];
    const length = Math.hypot(to.xPx - from.xPx, to.yPx - from.yPx) || 1;
    const [nx, ny] = [-(to.yPx - from.yPx) / length, (to.xPx - from.xPx) / length];
    const roomy = length >= ROOM_PX;
    const level = Math.abs(nx) < 0.5;
    return {
      edge,
      from,
      to,
      offPx: roomy ? -EDGE_OFF_PX - (level ? 0 : 16) : 0,
      roomy,
      level,
      name: {
        xPx: (from.xPx + to.xPx) / 2 - nx * (level ? 15 : 8),
        yPx: (from.yPx + to.yPx) / 2 - (level ? ny * 15 - 4 : 22),
      },
      anchor: level ? 'middle' : nx > 0 ? 'end' : 'start',
    };
  });
}

/** Where a perpendicular from a corner meets an edge's line. */
export function footPx(camera: Camera, corners: Corner[], corner: number, edge: number): PointPx {
  const [a, b] = [cornerPx(camera, corners, edge), cornerPx(camera, corners, edge + 1)];
  const p = cornerPx(camera, corners, corner);
  const [ux, uy] = [b.xPx - a.xPx, b.yPx - a.yPx];
  const share = ((p.xPx - a.xPx) * ux + (p.yPx - a.yPx) * uy) / (ux * ux + uy * uy || 1);
  return { xPx: a.xPx + share * ux, yPx: a.yPx + share * uy };
}

/** The line a reading other than a side runs along. */
export function readingLine(
  camera: Camera,
  corners: Corner[],
  reading: Schemas['ReadingKind'],
  at: readonly number[],
): [PointPx, PointPx] | null {
  const [first = 0, second = 0] = at;
  switch (reading) {
    case 'diagonal':
      return [cornerPx(camera, corners, first), cornerPx(camera, corners, second)];
    case 'offset':
      return [cornerPx(camera, corners, first), footPx(camera, corners, first, second)];
    case 'along': {
      // Drawn a little inside the side it runs along.
      const [start, end] = [
        cornerPx(camera, corners, second),
        footPx(camera, corners, first, second),
      ];
      const [dx, dy] = [end.xPx - start.xPx, end.yPx - start.yPx];
      const length = Math.hypot(dx, dy) || 1;
      const [ox, oy] = [(dy / length) * 22, (-dx / length) * 22];
      return [
        { xPx: start.xPx + ox, yPx: start.yPx + oy },
        { xPx: end.xPx + ox, yPx: end.yPx + oy },
      ];
    }
    default:
      return null;
  }
}

const SHARES = [0.5, 0.4, 0.6, 0.3, 0.7, 0.22, 0.78];

/** The place on a line that keeps farthest from what is there already. */
export function roomiest([a, b]: [PointPx, PointPx], taken: readonly PointPx[]): PointPx {
  const places = SHARES.map((share) => ({
    xPx: a.xPx + (b.xPx - a.xPx) * share,
    yPx: a.yPx + (b.yPx - a.yPx) * share,
  }));
  // Fields are wide and low: sideways room counts less.
  const room = (p: PointPx) =>
    Math.min(120, ...taken.map((t) => Math.hypot((t.xPx - p.xPx) / 2.5, t.yPx - p.yPx)));
  return places.reduce((best, p) => (room(p) > room(best) + 1 ? p : best), places[0] ?? a);
}

/** A field on the drawing by its middle and its width. */
export interface FieldSpot {
  at: PointPx;
  widthPx: number;
}

const FIELD_HIGH_PX = 27;

/** Which of some fields stand clear of those before them: the others wait until one zooms in. */
export function clearFields(spots: readonly FieldSpot[]): boolean[] {
  const standing: FieldSpot[] = [];
  return spots.map((spot) => {
    const clear = standing.every(
      (s) =>
        Math.abs(s.at.xPx - spot.at.xPx) >= (s.widthPx + spot.widthPx) / 2 ||
        Math.abs(s.at.yPx - spot.at.yPx) >= FIELD_HIGH_PX,
    );
    if (clear) standing.push(spot);
    return clear;
  });
}
