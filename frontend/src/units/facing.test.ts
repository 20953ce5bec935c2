import { expect, test } from 'vitest';
import { facingWord } from './facing';

test.each([
  [0, 'north'],
  [176, 'south'],
  [265.6, 'west'],
  [337.4, 'north-west'],
  [350, 'north'],
])('azimuth %d looks %s', (azimuth, word) => {
  expect(facingWord(azimuth)).toBe(word);
});
