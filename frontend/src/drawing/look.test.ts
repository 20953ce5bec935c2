import { expect, test } from 'vitest';
import { type Camera, toPlane, toScreen } from './camera';
import { lookedThrough, shifted, WHOLE, zoomedAt } from './look';

const camera: Camera = { pxPerM: 20, originPx: { xPx: 50, yPx: 300 } };

test('the point under the hand stays where it is while zooming', () => {
  const hand = { xPx: 210, yPx: 130 };
  const before = toPlane(camera, hand);
  const look = zoomedAt(zoomedAt(shifted(WHOLE, 12, -7), 1.5, hand), 0.8, hand);
  const there = toPlane(lookedThrough(camera, shifted(WHOLE, 12, -7)), hand);
  const after = toPlane(lookedThrough(camera, look), hand);
  expect(after.xM).toBeCloseTo(there.xM);
  expect(after.yM).toBeCloseTo(there.yM);
  expect(toScreen(lookedThrough(camera, WHOLE), before)).toEqual(hand);
});

test('nobody gets lost: the zoom has ends', () => {
  let look = WHOLE;
  for (let i = 0; i < 60; i++) look = zoomedAt(look, 2, { xPx: 0, yPx: 0 });
  expect(look.zoom).toBe(24);
  for (let i = 0; i < 60; i++) look = zoomedAt(look, 0.5, { xPx: 0, yPx: 0 });
  expect(look.zoom).toBe(0.5);
});
