/** The year, its seasons and its months, and a module's share lost in any of them. */
import type { Schemas } from '@/api/client';
import { MONTHS } from '@/units/format';

export interface Period {
  id: string;
  title: string;
  /** 0 for January; all twelve for the year. */
  months: readonly number[];
}

const ALL = MONTHS.map((_, m) => m);
const QUARTERS = [
  [11, 0, 1],
  [2, 3, 4],
  [5, 6, 7],
  [8, 9, 10],
] as const;

/** Year, four seasons, twelve months; the seasons' names turn round south of the equator. */
export function periodsOf(southern: boolean): Period[] {
  const names = southern
    ? ['Summer', 'Autumn', 'Winter', 'Spring']
    : ['Winter', 'Spring', 'Summer', 'Autumn'];
  return [
    { id: 'year', title: 'Whole year', months: ALL },
    ...QUARTERS.map((months, i) => ({
      id: `season ${i}`,
      title: `${names[i] ?? ''}, ${MONTHS[months[0]] ?? ''}–${MONTHS[months[2]] ?? ''}`,
      months,
    })),
    ...MONTHS.map((title, m) => ({ id: `month ${m}`, title, months: [m] })),
  ];
}

/** The share of a module's light in a period that shade takes. */
export function lostOf(module: Schemas['ModuleShade'], period: Period): number {
  if (period.months.length === MONTHS.length) return module.lost_frac;
  let [free, lost] = [0, 0];
  for (const m of period.months) {
    const light = module.monthly_free_kwh_per_m2[m] ?? 0;
    free += light;
    lost += light * (module.monthly_lost_frac[m] ?? 0);
  }
  return free > 0 ? lost / free : 0;
}
