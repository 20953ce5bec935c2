import { expect, test } from 'vitest';
import { matching } from './matching';

const THINGS = [
  { kind: 'step', name: 'Go to Strings', words: 'wiring series' },
  { kind: 'view', name: 'Go to Strings, Rules', words: 'code coldest temperature' },
  { kind: 'check', name: 'Cold Voc string A', words: 'coldest voltage' },
  { kind: 'command', name: 'Undo: trim Cottonwood', words: 'take back' },
];
const names = (typed: string) => matching(THINGS, typed).map(({ name }) => name);

test.each([
  ['', THINGS.map(({ name }) => name)],
  ['strings', ['Go to Strings', 'Go to Strings, Rules']],
  ['voc', ['Cold Voc string A']],
  ['coldest', ['Go to Strings, Rules', 'Cold Voc string A']],
  // A name that begins a word stands before one that only holds the letters.
  ['co', ['Cold Voc string A', 'Undo: trim Cottonwood', 'Go to Strings, Rules']],
  ['string cold', ['Cold Voc string A', 'Go to Strings, Rules']],
  ['nothing such', []],
])('%s', (typed, found) => {
  expect(names(typed)).toEqual(found);
});
