/** Rows that are sorted by the column whose head is pressed; what is not known stands last. */
import { useState } from 'react';
import { SortHead } from './SortHead';

export interface Column<Row, Id extends string> {
  id: Id;
  title: string;
  of: (row: Row) => number | null;
  /** Less is better: the first press puts the least first. */
  rising?: boolean;
}

/** Without a first column the rows stay in their own order until a head is pressed. */
export function useSorted<Row, Id extends string>(
  rows: readonly Row[],
  columns: readonly Column<Row, Id>[],
  first: Id | null = null,
) {
  const [sort, setSort] = useState<{ by: Id | null; down: boolean }>({ by: first, down: true });
  const column = columns.find((c) => c.id === sort.by);
  const order = (row: Row) => {
    const value = column?.of(row) ?? null;
    return value === null ? Number.POSITIVE_INFINITY : sort.down ? -value : value;
  };
  const heads = columns.map(({ id, title, rising = false }) => (
    <SortHead
      key={id}
      title={title}
      sorted={sort.by === id ? (sort.down ? 'descending' : 'ascending') : 'none'}
      onSort={() => setSort({ by: id, down: sort.by === id ? !sort.down : !rising })}
    />
  ));
  return { sorted: column ? rows.toSorted((a, b) => order(a) - order(b)) : rows, heads };
}
