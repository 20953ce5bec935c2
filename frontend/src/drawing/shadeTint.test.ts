import { expect, test } from 'vitest';
import { luminance, shadeTint } from './shadeTint';

const channels = (css: string) => [...css.matchAll(/\d+/g)].map(Number);
test('a sunny module is straw, the worst slate, and nothing is darker', () => {
  expect(shadeTint(0, 0.3).fill).toBe('rgb(240 217 160)');
  expect(shadeTint(0.3, 0.3).fill).toBe('rgb(62 78 80)');
  expect(shadeTint(0.9, 0.3).fill).toBe(shadeTint(0.3, 0.3).fill);
  // A little shade is not drawn as if it were much.
  expect(luminance(channels(shadeTint(0.01, 0.02).fill))).toBeGreaterThan(0.6);
});

test('luminance is that of the standard: white 1, black 0, a mid grey by its formula', () => {
  expect(luminance([255, 255, 255])).toBeCloseTo(1);
  expect(luminance([0, 0, 0])).toBe(0);
  expect(luminance([119, 119, 119])).toBeCloseTo(0.1845, 3);
});

test('the figure in a module can be read on every tint', () => {
  for (let share = 0; share <= 1; share += 0.02) {
    const { fill, ink } = shadeTint(share * 0.3, 0.3);
    const back = luminance(channels(fill));
    const front = ink === '#000' ? 0 : 1;
    const contrast = (Math.max(back, front) + 0.05) / (Math.min(back, front) + 0.05);
    expect(contrast).toBeGreaterThan(4.5);
  }
});
