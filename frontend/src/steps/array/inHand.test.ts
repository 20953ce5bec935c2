import { describe, expect, it } from 'vitest';
import { EMPTY_HANDED, meantBy, next } from './inHand';

const adding = next(EMPTY_HANDED, { do: 'take', hand: { kind: 'add', orientation: 'P' } });

describe('what is in hand', () => {
  it('is laid down by taking it again, and turned only while a module is being added', () => {
    expect(next(adding, { do: 'take', hand: { kind: 'add', orientation: 'P' } }).hand.kind).toBe(
      'toggle',
    );
    expect(next(adding, { do: 'turn' }).hand).toEqual({ kind: 'add', orientation: 'L' });
    expect(next(EMPTY_HANDED, { do: 'turn' })).toBe(EMPTY_HANDED);
  });

  it('goes before what is held when it is let go', () => {
    const both = next(adding, { do: 'hold', ids: ['a', 'b'] });
    const first = next(both, { do: 'let-go' });
    expect([first.hand.kind, first.held]).toEqual(['toggle', ['a', 'b']]);
    expect(next(first, { do: 'let-go' }).held).toEqual([]);
  });

  it('asks for a gap beside one module alone', () => {
    expect(next(EMPTY_HANDED, { do: 'ask', what: 'gap', of: ['a', 'b'] }).asks).toBeNull();
    const one = next(EMPTY_HANDED, { do: 'ask', what: 'gap', of: ['a'] });
    expect([one.asks, one.held]).toEqual(['gap', ['a']]);
    expect(next(one, { do: 'asked' }).asks).toBeNull();
  });

  it('means the held, else the one in focus, and remembers whose trouble is told', () => {
    const on = next(EMPTY_HANDED, { do: 'focus', id: 'a' });
    expect([meantBy(on, []), meantBy(on, ['b']), meantBy(EMPTY_HANDED, [])]).toEqual([
      ['a'],
      ['b'],
      [],
    ]);
    const off = next(on, { do: 'focus', id: '' });
    expect([off.focused, off.current]).toEqual(['', 'a']);
  });
});
