import { expect, test } from 'vitest';
import { chalkLines } from './chalkLines';

const mount = (support: number, at_m: number) => ({
  support,
  at_m,
  pinned: false,
  shared: false,
});
const run = (name: string, line: number, mounts: ReturnType<typeof mount>[], trim = 0) => ({
  name,
  line,
  mounts,
  across_m: line,
  from_m: 0,
  to_m: 9,
  limits_m: [],
  bare_left_m: 0,
  bare_right_m: 0,
  trim_left_m: trim,
  trim_right_m: 0,
  offset_m: null,
  upper: false,
});

test('a column for each support that carries something, runs of a broken line in one row', () => {
  const { columns, lines } = chalkLines({
    supports_m: [0.5, 1, 1.5, 2, 2.5],
    runs: [
      run('A1', 0, [mount(1, 0.5), mount(2, 1)], 0.1),
      run('A2', 0, [mount(4, 2), mount(5, 2.5)]),
      run('B', 1, [mount(1, 0.5), mount(5, 2.5)]),
    ],
  });
  expect(columns.map((c) => c.support)).toEqual([1, 2, 4, 5]);
  expect(lines.map((l) => l.names)).toEqual([['A1', 'A2'], ['B']]);
  expect(lines[0]?.cells).toEqual([0, 0.5, 0, 0.5]);
  expect(lines[1]?.cells).toEqual([0, null, null, 2]);
  expect(lines[0]?.trims).toEqual([{ told: 'A1 left', lengthM: 0.1 }]);
});
