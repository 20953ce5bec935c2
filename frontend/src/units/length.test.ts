import { describe, expect, test } from 'vitest';
import shared from '../../../tests/shared/lengths.json';
import {
  echoOf,
  formatAtLeast,
  formatLength,
  formatSmall,
  formatSpare,
  type LengthUnit,
  parseLengthM,
} from './length';

describe('lengths, by the table shared with the server', () => {
  test.each(shared.readings as [string, LengthUnit, number][])(
    '%s in %s',
    (typed, unit, metres) => {
      expect(parseLengthM(typed, unit)).toBeCloseTo(metres, 9);
    },
  );
  test.each(shared.refused as [string, LengthUnit][])('refuses “%s”', (typed, unit) => {
    expect(parseLengthM(typed, unit)).toBeNull();
  });
  test.each(shared.written as [number, LengthUnit, string][])(
    'writes %d %s',
    (metres, unit, text) => {
      expect(formatLength(metres, unit)).toBe(text);
    },
  );
});

test('the echo gives both unit systems, the job’s own first', () => {
  expect(echoOf("40'", 'ft')).toBe('40\' 0" = 12.19 m');
  expect(echoOf('12.19', 'm')).toBe('12.19 m = 39\' 11 7/8"');
  expect(echoOf('abc', 'm')).toBe('not a length yet');
});

test.each([
  [0, 'm', '0 mm'],
  [0.0031, 'm', '4 mm'],
  [0.003175, 'ft', '1/8"'],
  [0.0032, 'ft', '3/16"'],
  [0.0301625, 'ft', '1 3/16"'],
] as const)('%d metres, in %s: %s, never less', (lengthM, unit, told) => {
  expect(formatSmall(lengthM, unit)).toBe(told);
});

test('what is to spare is never told as more, a gap asked for never as less', () => {
  expect(formatSpare(0.0039, 'm')).toBe('3 mm');
  expect(formatSpare(0.0032, 'ft')).toBe('1/8"');
  expect(formatAtLeast(3.401, 'm')).toBe('3.41 m');
  expect(formatAtLeast(3.401, 'ft')).toBe('11\' 2"');
});
