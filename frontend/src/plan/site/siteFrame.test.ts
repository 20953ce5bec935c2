import { expect, test } from 'vitest';
import type { Schemas } from '@/api/client';
import { metresPerPx, pictureAt, siteAt } from './siteFrame';

const trace: Schemas['Trace'] = {
  picture: { sha256: '0'.repeat(64), width_px: 800, height_px: 600 },
  first: { x_px: 100, y_px: 500 },
  second: { x_px: 500, y_px: 200 },
  distance: { value_m: 25, typed: '25 m' },
  at: { east_m: -3, north_m: 2 },
  turned_deg: 90,
};

test('a picture turned a quarter clockwise has its right-hand side to the south', () => {
  expect(metresPerPx(trace)).toBeCloseTo(0.05);
  const right = siteAt(trace, { x_px: 200, y_px: 500 });
  expect(right.east_m).toBeCloseTo(-3);
  expect(right.north_m).toBeCloseTo(2 - 5);
  const up = siteAt(trace, { x_px: 100, y_px: 400 });
  expect(up.east_m).toBeCloseTo(-3 + 5);
  expect(up.north_m).toBeCloseTo(2);
});

test('from the picture to the site and back', () => {
  const there = siteAt({ ...trace, turned_deg: 37 }, { x_px: 321, y_px: 77 });
  const back = pictureAt({ ...trace, turned_deg: 37 }, there);
  expect(back.x_px).toBeCloseTo(321);
  expect(back.y_px).toBeCloseTo(77);
});
