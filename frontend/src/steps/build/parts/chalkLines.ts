/** The mounts of a plane as a table: a column a support, a row a line of rail. */
import type { Schemas } from '@/api/client';

export interface ChalkLine {
  line: number;
  /** One, or several where the line is broken. */
  names: string[];
  across_m: number;
  /** For each column the tape from its run's first mount, null where no mount stands. */
  cells: (number | null)[];
  trims: { told: string; lengthM: number }[];
}

export interface ChalkTable {
  /** Supports that carry a mount. */
  columns: { support: number; at_m: number }[];
  lines: ChalkLine[];
}

type Racked = Pick<Schemas['PlaneRackingView'], 'runs' | 'supports_m'>;

export function chalkLines({ runs, supports_m }: Racked): ChalkTable {
  const used = new Set(runs.flatMap((run) => run.mounts.map((mount) => mount.support)));
  const columns = [...used]
    .sort((a, b) => a - b)
    .map((support) => ({ support, at_m: supports_m[support - 1] ?? 0 }));
  const numbers = [...new Set(runs.map((run) => run.line))];
  const lines = numbers.map((line) => {
    const mine = runs.filter((run) => run.line === line);
    const cells = columns.map(({ support }) => {
      const run = mine.find((r) => r.mounts.some((m) => m.support === support));
      const mount = run?.mounts.find((m) => m.support === support);
      return run && mount ? mount.at_m - (run.mounts[0]?.at_m ?? 0) : null;
    });
    const trims = mine.flatMap((run) => [
      ...(run.trim_left_m > 0 ? [{ told: `${run.name} left`, lengthM: run.trim_left_m }] : []),
      ...(run.trim_right_m > 0 ? [{ told: `${run.name} right`, lengthM: run.trim_right_m }] : []),
    ]);
    return {
      line,
      names: mine.map((run) => run.name),
      across_m: mine[0]?.across_m ?? 0,
      cells,
      trims,
    };
  });
  return { columns, lines };
}
