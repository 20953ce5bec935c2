import { describe, expect, test } from 'vitest';
import { percent, plain, rebateRatio } from './model';

describe('figures of the brief', () => {
  test.each([
    [1.2, '120 %'],
    [0.265, '26.5 %'],
    [0, '0 %'],
  ])('%s as a share', (frac, text) => expect(percent(frac)).toBe(text));

  test.each([
    [3.68, 2, '3.68'],
    [5, 2, '5'],
    [1450, 0, '1 450'],
    [100, 0, '100'],
    [null, 2, ''],
  ])('%s without false zeros', (value, places, text) => expect(plain(value, places)).toBe(text));
});

test.each([
  [1.33, '133 %'],
  [4 / 3, 'AC at least 75 %'],
  [1.5, '150 %'],
])('a rebate of %d is told in the wording it was given in', (ratio, text) =>
  expect(rebateRatio(ratio)).toBe(text),
);
