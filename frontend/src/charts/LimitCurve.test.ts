import { expect, test } from 'vitest';
import { clippedAt } from './LimitCurve';

const points = [
  { limitKw: 0, clippedKwh: 100, clippedFrac: 1 },
  { limitKw: 2, clippedKwh: 40, clippedFrac: 0.4 },
  { limitKw: 4, clippedKwh: 0, clippedFrac: 0 },
];

test.each([
  [0, 100],
  [1, 70],
  [2, 40],
  [4, 0],
  [9, 0],
])('a limit of %d kW clips %d kWh', (limitKw, kwh) => {
  expect(clippedAt(points, limitKw).clippedKwh).toBeCloseTo(kwh);
});
