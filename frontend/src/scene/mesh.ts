/** Faces of the site as triangles: x east, y up, z south, as the 3-D library has it. */
import { ShapeUtils, Vector2, Vector3 } from 'three';

export interface SitePoint3 {
  east_m: number;
  north_m: number;
  up_m: number;
}

export const toVector = (p: SitePoint3) => new Vector3(p.east_m, p.up_m, -p.north_m);

/** The normal of a ring that may have notches, by summing over its sides. */
export function normalOf(ring: readonly Vector3[]): Vector3 {
  const normal = new Vector3();
  ring.forEach((a, i) => {
    const b = ring[(i + 1) % ring.length];
    if (b) normal.add(new Vector3().crossVectors(a, b));
  });
  return normal.normalize();
}

/** Corners of the triangles of a flat ring, three numbers each. */
export function trianglesOf(points: readonly SitePoint3[]): number[] {
  const ring = points.map(toVector);
  const [first] = ring;
  if (!first || ring.length < 3) return [];
  const normal = normalOf(ring);
  // Any direction in the plane will do for flattening it.
  const aside = Math.abs(normal.y) < 0.9 ? new Vector3(0, 1, 0) : new Vector3(1, 0, 0);
  const u = new Vector3().crossVectors(aside, normal).normalize();
  const v = new Vector3().crossVectors(normal, u);
  const flat = ring.map((p) => new Vector2(p.dot(u), p.dot(v)));
  return ShapeUtils.triangulateShape(flat, [])
    .flat()
    .flatMap((i) => ring[i]?.toArray() ?? []);
}
