import { expect, test } from 'vitest';
import { nextPlace } from './walk';

const places = [
  { id: 'a', xM: 0, yM: 0 },
  { id: 'b', xM: 1, yM: 0 },
  { id: 'c', xM: 0.1, yM: 2 },
  { id: 'd', xM: 1.1, yM: 2 },
];

test.each([
  ['a', 'right', 'b'],
  ['a', 'up', 'c'],
  ['d', 'down', 'b'],
  ['b', 'right', 'd'],
  ['a', 'left', 'a'],
] as const)('from %s %s is %s', (from, direction, to) => {
  expect(nextPlace(places, from, direction)).toBe(to);
});

test('an unknown start takes the first place', () => {
  expect(nextPlace(places, 'gone', 'up')).toBe('a');
});
