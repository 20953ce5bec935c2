/**
 * What is in hand on a drawing: taken by a press or by Enter, let go by Enter, Escape or leaving
 * it. Arrows move what is in hand; otherwise they walk on to the next thing.
 */
import { type KeyboardEvent, useState } from 'react';
import { type Nudge, nudgeOf } from './nudge';

/** How a thing in hand is framed. */
export const HELD_LOOK =
  'data-held:outline-2 data-held:outline-dashed data-held:outline-offset-4 data-held:outline-copper';

const IN_HAND = 'in hand: arrows move it';

export function useHold(onNudge: (id: string, nudge: Nudge) => void) {
  const [held, setHeld] = useState('');
  const letGo = (id: string) => setHeld((now) => (now === id ? '' : now));
  const hold = (id: string) => ({
    'data-held': held === id ? '' : undefined,
    onPointerDownCapture: () => setHeld(id),
    onBlur: () => letGo(id),
    onKeyDown: (event: KeyboardEvent) => {
      if (event.key === 'Enter' || event.key === ' ') {
        event.preventDefault();
        setHeld(held === id ? '' : id);
      }
      if (event.key === 'Escape') letGo(id);
      const nudge = held === id ? nudgeOf(event) : null;
      if (nudge) onNudge(id, nudge);
    },
  });
  /** A label with the hint, while the thing is in hand. */
  const told = (id: string, label: string) => (held === id ? `${label}, ${IN_HAND}` : label);
  return { hold, told };
}
