import { expect, it } from 'vitest';
import { clockOf, monthOfDay } from '@/units/format';
import { countOf, momentAt } from './moments';
import type { SunDay } from './queries';

const moment = (minute: number, lit: number[][]): SunDay['moments'][number] => ({
  minute,
  azimuth_deg: 180,
  elevation_deg: 30,
  ground: [],
  planes: [],
  lit_frac: lit,
});
const day: SunDay = {
  day: 0,
  step_min: 15,
  utc_offset_h: -7,
  modules: [],
  moments: [moment(480, []), moment(495, []), moment(510, [])],
};

it('finds the moment nearest a minute', () => {
  expect(momentAt(day, 0)?.minute).toBe(480);
  expect(momentAt(day, 500)?.minute).toBe(495);
  expect(momentAt({ ...day, moments: [] }, 500)).toBeUndefined();
});

it('counts a module by the mean of its substrings', () => {
  expect(
    countOf(
      moment(0, [
        [1, 1, 1],
        [1, 0, 0],
        [0, 0, 0.05],
      ]),
    ),
  ).toEqual({
    lit: 1,
    partly: 1,
    shaded: 1,
  });
});

it('tells the clock and the month', () => {
  expect(clockOf(485)).toBe('8:05');
  expect(monthOfDay(354)).toBe(11);
  expect(monthOfDay(31)).toBe(1);
});
