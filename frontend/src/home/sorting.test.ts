import { expect, test } from 'vitest';
import type { JobCard, JobEntry } from './queries';
import { grouped, matches } from './sorting';

const job = (id: string, saved_at: string): JobEntry => ({
  id,
  name: id,
  revision: 1,
  saved_at,
  archived: false,
});
const NOW = new Date(2026, 10, 30, 9, 0);
const local = (...at: [number, number, number, number, number]) => new Date(...at).toISOString();
const JOBS = [
  job('Mill', local(2026, 9, 2, 8, 0)),
  job('Kiln', local(2026, 10, 30, 8, 0)),
  job('Bench', local(2026, 10, 28, 8, 0)),
];
const SIZE: Record<string, number> = { Mill: 8000, Bench: 11000 };
const cardOf = (one: JobEntry) =>
  one.id in SIZE ? ({ p_dc_w: SIZE[one.id], place: 'dry valley' } as JobCard) : undefined;

test('the newest come first, under when they were touched', () => {
  expect(
    grouped(JOBS, 'newest', cardOf, NOW).map((g) => [g.title, g.jobs.map((j) => j.id)]),
  ).toEqual([
    ['Today', ['Kiln']],
    ['In the last seven days', ['Bench']],
    ['Oct 2026', ['Mill']],
  ]);
});

test('by name, and by size with what is not known yet last', () => {
  const ids = (order: 'name' | 'largest') =>
    grouped(JOBS, order, cardOf, NOW).flatMap((g) => g.jobs.map((j) => j.id));
  expect(ids('name')).toEqual(['Bench', 'Kiln', 'Mill']);
  expect(ids('largest')).toEqual(['Bench', 'Mill', 'Kiln']);
});

test('every word is sought in name and place', () => {
  const [mill] = JOBS as [JobEntry];
  expect(matches('mi VALLEY', mill, cardOf(mill))).toBe(true);
  expect(matches('mill hill', mill, cardOf(mill))).toBe(false);
  expect(matches('valley', mill, undefined)).toBe(false);
});
