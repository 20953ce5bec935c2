import { expect, test } from 'vitest';
import { overlaps } from './RoofGround';
import { boxAround, snapLines, snapped, stripLines } from './snap';

const box = { leftM: 0, bottomM: 0, rightM: 1, topM: 2 };
const other = { leftM: 3, bottomM: 1, rightM: 4, topM: 3 };
const around = {
  others: [other],
  strips: { lefts: [-5], rights: [9], bottoms: [-5], tops: [9] },
  uprightXM: [7],
  levelYM: [7.5],
  gapInRowM: 0.02,
  gapBetweenRowsM: 0.03,
};
const lines = snapLines(box, around);

test.each([
  // Beside the other, a gap away; in its column; on its row; a gap above it.
  [{ dxM: 1.95, dyM: 4 }, 1.98, 4],
  [{ dxM: 2.97, dyM: 4 }, 3, 4],
  [{ dxM: 5.5, dyM: 1.04 }, 5.5, 1],
  [{ dxM: 5.5, dyM: 3.05 }, 5.5, 3.03],
  // A rafter under its left edge, or under its right one; the right strip.
  [{ dxM: 7.04, dyM: 5 }, 7, 5],
  [{ dxM: 5.97, dyM: 5 }, 6, 5],
  [{ dxM: 8.02, dyM: 6.96 }, 8, 7],
  // A purlin under its lower edge, or under its upper one.
  [{ dxM: 5.3, dyM: 7.46 }, 5.3, 7.5],
  [{ dxM: 5.3, dyM: 5.53 }, 5.3, 5.5],
  // Nothing within reach.
  [{ dxM: 5.3, dyM: 4.4 }, 5.3, 4.4],
])('a shift of %o catches', (shift, dxM, dyM) => {
  const found = snapped(box, shift, lines, 0.06);
  expect(found.dxM).toBeCloseTo(dxM);
  expect(found.dyM).toBeCloseTo(dyM);
});

test('what is caught is told, to be drawn', () => {
  expect(snapped(box, { dxM: 5.3, dyM: 1.01 }, lines, 0.06)).toMatchObject({ xM: null, yM: 1 });
});

test('the box round boxes, and whether two meet', () => {
  expect(boxAround([box, other])).toEqual({ leftM: 0, bottomM: 0, rightM: 4, topM: 3 });
  expect(overlaps(box, other)).toBe(false);
  expect(overlaps(box, { leftM: 0.5, bottomM: 1.5, rightM: 3, topM: 4 })).toBe(true);
});

test('strips of upright and level edges are lines to catch; a hip is none', () => {
  const corners = [
    { xM: 0, yM: 0 },
    { xM: 10, yM: 0 },
    { xM: 10.05, yM: 5 },
    { xM: 4, yM: 5 },
  ];
  const kinds = ['eave', 'rake', 'ridge', 'hip'] as const;
  const edges = kinds.map((kind) => ({ kind, state: 'taped' as const, stripM: 0.3 }));
  const found = stripLines(corners, edges);
  expect(found.bottoms).toEqual([0.3]);
  expect(found.rights).toEqual([9.7]);
  expect(found.tops).toEqual([4.7]);
  expect(found.lefts).toEqual([]);
});
