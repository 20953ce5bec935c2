/** Bearings in words. */
const WORDS = [
  'north',
  'north-east',
  'east',
  'south-east',
  'south',
  'south-west',
  'west',
  'north-west',
] as const;

/** Which way a plane looks, in a word. */
export const facingWord = (azimuthDeg: number) =>
  WORDS[Math.round((((azimuthDeg % 360) + 360) % 360) / 45) % 8] ?? 'north';
