import { expect, test } from 'vitest';
import { jumpsOf } from './Threads';

test('neighbours are no jump, a gap in the row is one, told before its middle', () => {
  const at = (xPx: number, yPx = 0) => ({ xPx, yPx });
  // Modules 100 long: steps of 66 and 100 reach, one of 206 does not.
  expect(jumpsOf([at(0), at(66), at(66, 100)], 100)).toEqual([]);
  expect(jumpsOf([at(0), at(66), at(272)], 100)).toEqual([
    { xPx: expect.closeTo(127.8), yPx: 0, longPx: 206, upright: false },
  ]);
});
