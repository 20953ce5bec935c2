import { describe, expect, test } from 'vitest';
import shared from '../../../tests/shared/lengths.json';
import { echoOf, formatLength, type LengthUnit, parseLengthM } from './length';

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
