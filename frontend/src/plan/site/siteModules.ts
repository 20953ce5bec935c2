/** Modules on the site plan, seen from above: their outlines, whole and by substring. */
import { type Camera, toScreen } from '@/drawing/camera';

type Corner = readonly number[];
type Ring = readonly Corner[];

export const ringPoints = (camera: Camera, ring: Ring) =>
  ring
    .map(([xM = 0, yM = 0]) => {
      const at = toScreen(camera, { xM, yM });
      return `${at.xPx.toFixed(1)},${at.yPx.toFixed(1)}`;
    })
    .join(' ');

const between = (a: Corner, b: Corner, share: number): Corner =>
  a.map((from, k) => from + ((b[k] ?? from) - from) * share);

/**
 * The substrings of a module as strips along its long side: across the first edge of the ring
 * where it stands upright, across the second where it lies.
 */
export function stripsOf(ring: Ring, count: number, upright: boolean): Corner[][] {
  const [a, b, c, d] = upright ? ring : [ring[1], ring[2], ring[3], ring[0]];
  if (!a || !b || !c || !d) return [];
  return Array.from({ length: count }, (_, i) => {
    const [from, to] = [i / count, (i + 1) / count];
    return [between(a, b, from), between(a, b, to), between(d, c, to), between(d, c, from)];
  });
}
