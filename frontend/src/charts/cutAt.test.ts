import { expect, test } from 'vitest';
import { cutAt } from './DayChart';

test('a corner is put in where the curve crosses the limit, and nowhere else', () => {
  const points = [
    { hour: 0, kw: 0 },
    { hour: 1, kw: 4 },
    { hour: 2, kw: 1 },
  ];
  expect(cutAt(points, 2)).toEqual([
    { hour: 0, kw: 0 },
    { hour: 0.5, kw: 2 },
    { hour: 1, kw: 4 },
    { hour: 1 + 2 / 3, kw: 2 },
    { hour: 2, kw: 1 },
  ]);
  expect(cutAt(points, 5)).toEqual(points);
});
