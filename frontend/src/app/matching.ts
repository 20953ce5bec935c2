/** What “Find or do” holds, and which of it people mean by the letters they type. */

export interface Findable {
  /** What kind of thing it is, shown beside its name. */
  kind: string;
  name: string;
  /** Other words people use for it. */
  words?: string;
  run: () => void;
}

const INSIDE_NAME = 1;
const STARTS_WORD = 2;
const INSIDE_WORD = 3;

/** How well a typed word fits: lower is better, none where it does not. */
function nearness(typed: string, name: string, words: string): number | null {
  if (startsOne(name, typed)) return 0;
  if (name.includes(typed)) return INSIDE_NAME;
  if (startsOne(words, typed)) return STARTS_WORD;
  return words.includes(typed) ? INSIDE_WORD : null;
}

const startsOne = (text: string, typed: string) =>
  text.split(/[^\p{L}\p{N}:.]+/u).some((word) => word.startsWith(typed));

/** All that fit every typed word, the best first; all of them where nothing is typed. */
export function matching<T extends Pick<Findable, 'kind' | 'name' | 'words'>>(
  all: readonly T[],
  typed: string,
): T[] {
  const asked = typed.toLowerCase().split(/\s+/).filter(Boolean);
  if (asked.length === 0) return [...all];
  return all
    .flatMap((item, place) => {
      const name = item.name.toLowerCase();
      const words = `${item.kind} ${item.words ?? ''}`.toLowerCase();
      const near = asked.map((word) => nearness(word, name, words));
      if (near.includes(null)) return [];
      const whole = name.startsWith(asked.join(' ')) ? -1 : 0;
      const sum = near.reduce<number>((total, value) => total + (value ?? 0), whole);
      return [{ item, sum, place }];
    })
    .sort((a, b) => a.sum - b.sum || a.place - b.place)
    .map(({ item }) => item);
}
