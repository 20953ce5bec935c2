/** Datasheets of the shelf whose names hold what is typed, looked up on the server. */
import { useQueries } from '@tanstack/react-query';
import { type SheetKind, shelfPageQuery } from '@/api/shelfQueries';
import { useRested } from '@/ui/useRested';
import type { Findable } from './matching';

const KINDS: readonly SheetKind[] = [
  'module',
  'inverter',
  'optimizer',
  'microinverter',
  'mounting',
];
const LEAST_LETTERS = 2;
const EACH = 6;

export function useShelfFound(typed: string, visit: (address: string) => void): Findable[] {
  const words = useRested(typed.trim());
  const pages = useQueries({
    queries: KINDS.map((kind) => ({
      ...shelfPageQuery({ kind, words, sort: '', down: true, least: null, most: null, start: 0 }),
      enabled: words.length >= LEAST_LETTERS,
    })),
  });
  if (typed.trim().length < LEAST_LETTERS) return [];
  return pages.flatMap(({ data }, i) => {
    const kind = KINDS[i];
    return kind && data
      ? data.rows.slice(0, EACH).map((row) => ({
          kind: `${kind}, on the shelf`,
          name: row.name,
          run: () => visit(`/shelf?kind=${kind}&sheet=${row.id}`),
        }))
      : [];
  });
}
