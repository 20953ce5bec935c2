import { expect, test } from 'vitest';
import { jumpsOf } from './Threads';

const at = (xPx: number, yPx = 0) => ({ xPx, yPx });

test('what leads reach is no jump; a gap in the row is one, told beside its first module', () => {
  expect(jumpsOf([at(0), at(66), at(66, 100)], 115, 13)).toEqual([]);
  expect(jumpsOf([at(0), at(66), at(272)], 115, 13)).toEqual([
    { xPx: 84, yPx: -7, longPx: 206, anchor: 'start' },
  ]);
});

test('a jump down the right side is told on the inner side of it', () => {
  expect(jumpsOf([at(0), at(100), at(100, 150)], 115, 13)).toEqual([
    { xPx: 93, yPx: 29, longPx: 150, anchor: 'end' },
  ]);
});

test('a slanting jump is told in its middle', () => {
  expect(jumpsOf([at(0), at(100, 100)], 115, 13)).toEqual([
    { xPx: 50, yPx: 54, longPx: expect.closeTo(141.4, 1), anchor: 'middle' },
  ]);
});
