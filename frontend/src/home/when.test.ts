import { expect, test } from 'vitest';
import { heading, touched } from './when';

const NOW = new Date(2026, 10, 30, 9, 0);
const local = (...at: [number, number, number, number, number]) => new Date(...at).toISOString();

test.each([
  [local(2026, 10, 30, 0, 5), 'today 00:05', 'Today'],
  [local(2026, 10, 29, 23, 55), 'yesterday 23:55', 'In the last seven days'],
  [local(2026, 10, 24, 12, 0), '24 Nov', 'In the last seven days'],
  [local(2026, 10, 23, 12, 0), '23 Nov', 'Nov 2026'],
  [local(2025, 11, 31, 12, 0), '31 Dec 2025', 'Dec 2025'],
])('%s was touched %s, under %s', (iso, said, under) => {
  expect(touched(iso, NOW)).toBe(said);
  expect(heading(iso, NOW)).toBe(under);
});
