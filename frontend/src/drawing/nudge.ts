/** Arrow keys move what is in hand: 100 mm, with Shift 10 mm. */
import type { KeyboardEvent } from 'react';

/** The way of each arrow key, right and up. */
export const ARROWS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

export interface Nudge {
  dxM: number;
  dyM: number;
}

/** The step of an arrow key in metres, right and up; null for another key, which stays alone. */
export function nudgeOf(event: KeyboardEvent): Nudge | null {
  const direction = ARROWS[event.key];
  if (!direction) return null;
  event.preventDefault();
  const stepM = event.shiftKey ? 0.01 : 0.1;
  return { dxM: direction[0] * stepM, dyM: direction[1] * stepM };
}
