import { describe, expect, test } from 'vitest';
import { clearFields, cornerPx, footPx, readingLine, roomiest, sideLines } from './outlineGeometry';

const camera = { pxPerM: 20, originPx: { xPx: 100, yPx: 400 } };
const at = (x_m: number, y_m: number) => ({ x_m, y_m, sd_m: null, loose: false });
const oblong = [at(0, 0), at(10, 0), at(10, 5), at(0, 5)];

describe('dimension lines stand outside an outline that runs anticlockwise', () => {
  const lines = sideLines(camera, oblong);
  const middle = (i: number) => {
    const line = lines[i];
    if (!line) throw new Error('no such side');
    const [dx, dy] = [line.to.xPx - line.from.xPx, line.to.yPx - line.from.yPx];
    const length = Math.hypot(dx, dy);
    return {
      xPx: (line.from.xPx + line.to.xPx) / 2 + (-dy / length) * line.offPx,
      yPx: (line.from.yPx + line.to.yPx) / 2 + (dx / length) * line.offPx,
    };
  };
  test('below the eave, right of the right rake, above the ridge, left of the left one', () => {
    expect(middle(0).yPx).toBeCloseTo(440);
    expect(middle(2).yPx).toBeCloseTo(260);
    expect(lines[1]?.roomy).toBe(false);
    expect(lines.map((l) => l.level)).toEqual([true, false, true, false]);
  });
  test('a side too short for its figure carries it itself', () => {
    expect(lines[0]?.roomy).toBe(true);
    expect(lines[1]?.offPx).toBe(0);
  });
  test('names beside upright sides stand away from the roof', () => {
    expect(lines.map((l) => l.anchor)).toEqual(['middle', 'start', 'middle', 'end']);
    expect(lines[1]?.name.xPx).toBeGreaterThan(300);
    expect(lines[3]?.name.xPx).toBeLessThan(100);
  });
});

test('a corner is met square off a side', () => {
  expect(footPx(camera, oblong, 2, 0)).toEqual({ xPx: 300, yPx: 400 });
  const leaning = [at(0, 0), at(10, 0), at(8, 5), at(2, 5)];
  const foot = footPx(camera, leaning, 3, 0);
  expect(foot.xPx).toBeCloseTo(140);
  expect(foot.yPx).toBeCloseTo(400);
});

test.each([
  ['diagonal', [0, 2], { xPx: 100, yPx: 400 }, { xPx: 300, yPx: 300 }],
  ['offset', [3, 0], { xPx: 100, yPx: 300 }, { xPx: 100, yPx: 400 }],
] as const)('a %s runs between its ends', (kind, where, from, to) => {
  expect(readingLine(camera, oblong, kind, where)).toEqual([from, to]);
});

test('a distance along a side is drawn inside it; a mark has no line', () => {
  const line = readingLine(camera, oblong, 'along', [2, 0]);
  expect(line?.[0].yPx).toBeCloseTo(400 - 22);
  expect(readingLine(camera, oblong, 'right_angle', [1])).toBeNull();
});

test('figures on crossing diagonals keep apart', () => {
  const [first, second] = [
    readingLine(camera, oblong, 'diagonal', [0, 2]),
    readingLine(camera, oblong, 'diagonal', [1, 3]),
  ];
  if (!first || !second) throw new Error('no diagonals');
  const corners = oblong.map((_, i) => cornerPx(camera, oblong, i));
  const a = roomiest(first, corners);
  const b = roomiest(second, [...corners, a]);
  expect(a).toEqual({ xPx: 200, yPx: 350 });
  expect(Math.hypot(a.xPx - b.xPx, a.yPx - b.yPx)).toBeGreaterThan(20);
});

test('a field waits while one before it stands in its place, not while they only touch', () => {
  const field = (xPx: number, yPx: number) => ({ at: { xPx, yPx }, widthPx: 60 });
  expect(
    clearFields([field(0, 0), field(59, 0), field(60, 0), field(30, 27), field(30, 26)]),
  ).toEqual([true, false, true, true, false]);
});
