/** Moments of a day in words, and which of them is nearest. */
import type { SunDay } from './queries';

/** The moment looked at: a day of the year, from 0, and its minute. */
export interface When {
  day: number;
  minute: number;
}

export type Moment = SunDay['moments'][number];

/** The moment nearest a minute of the day; none on a day without sun. */
export function momentAt(day: SunDay, minute: number): Moment | undefined {
  let best: Moment | undefined;
  for (const m of day.moments)
    if (!best || Math.abs(m.minute - minute) < Math.abs(best.minute - minute)) best = m;
  return best;
}

export const meanOf = (values: readonly number[]) =>
  values.length ? values.reduce((a, b) => a + b, 0) / values.length : 0;

/** A module counts as lit or shaded from these shares on; between them it is partly so. */
const LIT = 0.98;
const SHADED = 0.02;

export interface Counted {
  lit: number;
  partly: number;
  shaded: number;
}

export function countOf(moment: Moment): Counted {
  const found = { lit: 0, partly: 0, shaded: 0 };
  for (const module of moment.lit_frac) {
    const share = meanOf(module);
    found[share >= LIT ? 'lit' : share <= SHADED ? 'shaded' : 'partly'] += 1;
  }
  return found;
}
