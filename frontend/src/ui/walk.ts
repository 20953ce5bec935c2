/** Walking among things on a drawing with the arrow keys. */

export type Direction = 'left' | 'right' | 'up' | 'down';

export interface Place {
  id: string;
  xM: number;
  yM: number;
}

const AHEAD = {
  left: (dx: number, dy: number) => [-dx, dy] as const,
  right: (dx: number, dy: number) => [dx, dy] as const,
  up: (dx: number, dy: number) => [dy, dx] as const,
  down: (dx: number, dy: number) => [-dy, dx] as const,
};

/** The nearest place in a direction; sideways distance counts double, so that rows are kept. */
export function nextPlace(places: Place[], from: string, direction: Direction): string {
  const here = places.find((p) => p.id === from);
  if (!here) return places[0]?.id ?? from;
  let best = from;
  let bestCost = Number.POSITIVE_INFINITY;
  for (const place of places) {
    const [ahead, aside] = AHEAD[direction](place.xM - here.xM, place.yM - here.yM);
    if (ahead <= 1e-3) continue;
    const cost = ahead + 2 * Math.abs(aside);
    if (cost < bestCost) [best, bestCost] = [place.id, cost];
  }
  return best;
}
