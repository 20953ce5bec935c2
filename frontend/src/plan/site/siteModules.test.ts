import { expect, it } from 'vitest';
import { stripsOf } from './siteModules';

const RING = [
  [0, 0],
  [3, 0],
  [3, 6],
  [0, 6],
] as const;

it('parts an upright module across its width', () => {
  expect(stripsOf(RING, 3, true)[0]).toEqual([
    [0, 0],
    [1, 0],
    [1, 6],
    [0, 6],
  ]);
});

it('parts a lying module across its height, from its lower edge', () => {
  expect(stripsOf(RING, 2, false)[0]).toEqual([
    [3, 0],
    [3, 3],
    [0, 3],
    [0, 0],
  ]);
});
