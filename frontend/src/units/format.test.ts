import { expect, test } from 'vitest';
import { dayName, figure, money, signed, yearlyKwh } from './format';

test('figures are grouped by spaces and carry a true minus', () => {
  expect(figure(-12345.678, 1)).toBe('−12 345.7');
  expect(yearlyKwh(20434)).toBe('20 430 kWh');
});

test('a difference that rounds to nothing is not shown', () => {
  expect(signed(0.2)).toBe('');
  expect(signed(3)).toBe('+3');
  expect(signed(-0.25, 1)).toBe('−0.3');
});

test.each([
  [0, '1 Jan'],
  [58, '28 Feb'],
  [59, '1 Mar'],
  [364, '31 Dec'],
])('day %d is %s', (day, name) => {
  expect(dayName(day)).toBe(name);
});

test.each([
  [11820, '', '118.20'],
  [3600000, '$', '$36 000'],
  [38, '€', '€0.38'],
  [0, '', '0.00'],
  [null, '$', ''],
])('%s cents', (cents, currency, text) => expect(money(cents, currency)).toBe(text));
