/** A term of the trade with its line of the glossary to hover over; plain text where it has none. */
import words from '@docs/words.md?raw';

const LINE = /^\| ([^|]+) \| ([^|]+) \|/gm;
/** By each name a line of the glossary gives, in small letters. */
const MEANINGS = new Map(
  [...words.matchAll(LINE)].flatMap(([, names = '', meaning = '']) =>
    [names, ...names.split(',')].map(
      (name) => [name.trim().toLowerCase(), meaning.trim()] as const,
    ),
  ),
);

export const meaningOf = (term: string) => MEANINGS.get(term.toLowerCase());

export function Term({ children }: { children: string }) {
  const meaning = meaningOf(children);
  if (!meaning) return children;
  return (
    <dfn
      title={meaning}
      className="cursor-help not-italic underline decoration-ink-3 decoration-dotted underline-offset-2"
    >
      {children}
    </dfn>
  );
}
