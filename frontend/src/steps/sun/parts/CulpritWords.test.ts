import { expect, it } from 'vitest';
import type { ShadeReport } from '../queries';
import { sentenceOf } from './CulpritWords';

const months = (most: number) => Array.from({ length: 12 }, (_, m) => (m === most ? 40 : 5));
const culprit = (alone: number, only: number): ShadeReport['culprits'][number] => ({
  number: 1,
  name: 'the horizon',
  kind: 'horizon',
  shade_id: '',
  alone_kwh: alone,
  only_kwh: only,
  monthly_kwh: months(4),
  module_kwh: [],
  at: null,
});
const shade = { free_kwh: 10_000 } as ShadeReport;

it('tells what one takes, when most, and what hides behind others', () => {
  expect(sentenceOf(shade, culprit(95, 96))).toBe(
    'The horizon takes 95 kWh of light from this array in a year, 1.0 % of it, most of all in May.',
  );
  expect(sentenceOf(shade, culprit(95, 150))).toContain('By itself it would take 150');
});
