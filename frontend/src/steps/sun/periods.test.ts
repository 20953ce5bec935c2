import { expect, it } from 'vitest';
import type { Schemas } from '@/api/client';
import { lostOf, periodsOf } from './periods';

const module: Schemas['ModuleShade'] = {
  module_id: 'a',
  plane_id: 'p',
  free_kwh_per_m2: 300,
  lost_frac: 0.2,
  monthly_free_kwh_per_m2: [100, 0, 0, 0, 0, 200, 0, 0, 0, 0, 0, 0],
  monthly_lost_frac: [0.5, 0, 0, 0, 0, 0.05, 0, 0, 0, 0, 0, 0],
};
const period = (id: string) => {
  const found = periodsOf(false).find((p) => p.id === id);
  if (!found) throw new Error(id);
  return found;
};

it('weighs the months of a season by their light', () => {
  expect(lostOf(module, period('year'))).toBe(0.2);
  expect(lostOf(module, period('season 0'))).toBeCloseTo(0.5);
  expect(lostOf(module, period('month 5'))).toBeCloseTo(0.05);
  expect(lostOf(module, period('month 2'))).toBe(0);
});

it('calls December to February summer in the south', () => {
  expect(periodsOf(true)[1]?.title).toBe('Summer, Dec–Feb');
  expect(periodsOf(false)[1]?.title).toBe('Winter, Dec–Feb');
  expect(periodsOf(false)).toHaveLength(17);
});
