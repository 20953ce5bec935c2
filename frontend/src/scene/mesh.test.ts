import { Vector3 } from 'three';
import { expect, test } from 'vitest';
import { normalOf, trianglesOf } from './mesh';

const at = (east_m: number, north_m: number, up_m: number) => ({ east_m, north_m, up_m });

function areaOf(numbers: number[]): number {
  let area = 0;
  for (let i = 0; i < numbers.length; i += 9) {
    const [a, b, c] = [0, 3, 6].map((o) => new Vector3().fromArray(numbers, i + o));
    if (a && b && c) area += b.sub(a).cross(c.sub(a)).length() / 2;
  }
  return area;
}

test('a notched roof keeps its area in triangles', () => {
  // 6 by 4 on a slope of 3 : 4, with a notch of 2 by 1.2 plan metres in its eave.
  const up = (north: number) => 3 + 0.75 * north;
  const corners = [
    [0, 0], [2, 0], [2, 1.2], [4, 1.2], [4, 0], [6, 0], [6, 4], [0, 4],
  ] as const; // biome-ignore format: a list of corners
  const ring = corners.map(([e, n]) => at(e, n, up(n)));
  expect(areaOf(trianglesOf(ring))).toBeCloseTo((24 - 2.4) * 1.25);
});

test('a roof taken anticlockwise from above looks up', () => {
  const ring = [at(0, 0, 3), at(5, 0, 3), at(5, 4, 5), at(0, 4, 5)];
  const normal = normalOf(ring.map((p) => new Vector3(p.east_m, p.up_m, -p.north_m)));
  expect(normal.y).toBeGreaterThan(0);
  // It rises to the north, so it looks south: +z.
  expect(normal.z).toBeGreaterThan(0);
});
