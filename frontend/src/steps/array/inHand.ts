/**
 * What is in hand over the modules: a small state machine, so that each key and click means one
 * thing.  It knows no server; the step turns what it says into edits.
 */
import type { Orientation } from '@/plan/modules';
import { type Hand, TOGGLE } from './hand';

export interface InHand {
  hand: Hand;
  held: readonly string[];
  focused: string;
  /** The one that was last in focus: its trouble stays told while a button is pressed. */
  current: string;
  /** A gap left of the held module, or the reason for which a module is kept, is being typed. */
  asks: 'gap' | 'reason' | null;
}

export const EMPTY_HANDED: InHand = {
  hand: TOGGLE,
  held: [],
  focused: '',
  current: '',
  asks: null,
};

export type Act =
  | { do: 'take'; hand: Hand }
  | { do: 'turn' }
  | { do: 'hold'; ids: readonly string[] }
  | { do: 'focus'; id: string }
  | { do: 'ask'; what: 'gap'; of: readonly string[] }
  | { do: 'ask'; what: 'reason' }
  | { do: 'asked' }
  | { do: 'let-go' };

const OTHER: Record<Orientation, Orientation> = { P: 'L', L: 'P' };

export function next(was: InHand, act: Act): InHand {
  switch (act.do) {
    case 'take':
      return { ...was, hand: act.hand.kind === was.hand.kind ? TOGGLE : act.hand };
    case 'turn':
      return was.hand.kind === 'add'
        ? { ...was, hand: { kind: 'add', orientation: OTHER[was.hand.orientation] } }
        : was;
    case 'hold':
      return { ...was, held: act.ids };
    case 'focus':
      return { ...was, focused: act.id, current: act.id || was.current };
    case 'ask':
      if (act.what === 'reason') return { ...was, asks: 'reason' };
      return act.of.length === 1 ? { ...was, held: act.of, asks: 'gap' } : was;
    case 'asked':
      return { ...was, asks: null };
    case 'let-go':
      // The first Escape lays a tool down, the next one what is held.
      return {
        ...EMPTY_HANDED,
        held: was.hand.kind === 'toggle' ? [] : was.held,
        focused: was.focused,
      };
  }
}

/** What keys act on: the held ones that are still there, or the one in focus. */
export const meantBy = (now: InHand, held: readonly string[]): readonly string[] =>
  held.length > 0 ? held : now.focused ? [now.focused] : [];
