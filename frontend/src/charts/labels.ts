/** Names over points of a chart, moved up until none lies on another. */

export interface Label {
  text: string;
  x: number;
  y: number;
}

const HIGH_PX = 14;
/** About what a letter takes at the size of a chart's names. */
const LETTER_PX = 6.6;

const lieOn = (a: Label, b: Label) =>
  Math.abs(a.x - b.x) < ((a.text.length + b.text.length) / 2) * LETTER_PX &&
  Math.abs(a.y - b.y) < HIGH_PX;

/** The names with their places, centred on x: those that stand already are kept clear of too. */
export function clearLabels(wanted: readonly Label[], standing: readonly Label[] = []): Label[] {
  const placed: Label[] = [];
  for (const label of wanted.toSorted((a, b) => a.x - b.x)) {
    let at = label;
    const taken = [...standing, ...placed];
    for (
      let other = taken.find((t) => lieOn(at, t));
      other;
      other = taken.find((t) => lieOn(at, t))
    )
      at = { ...at, y: Math.min(at.y, other.y) - HIGH_PX };
    placed.push(at);
  }
  return placed;
}
