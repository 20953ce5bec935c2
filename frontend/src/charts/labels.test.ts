import { expect, test } from 'vitest';
import { clearLabels } from './labels';

const at = (text: string, x: number, y = 100) => ({ text, x, y });

test('names far apart stay, near ones are stacked upwards', () => {
  expect(clearLabels([at('Poplar 1', 50), at('Ash', 200)]).map((l) => l.y)).toEqual([100, 100]);
  expect(
    clearLabels([at('Poplar 1', 50), at('Poplar 2', 70), at('Poplar 3', 90)]).map((l) => l.y),
  ).toEqual([100, 86, 72]);
});

test('what stands already is kept clear of', () => {
  expect(clearLabels([at('Vent 2', 50)], [at('18', 54, 95)])[0]?.y).toBe(81);
});
