/** How strings look: each has its own hue and its own dash. */
export const THREADS = [
  { colour: '#1f6f63', dash: '' },
  { colour: '#8f4a1b', dash: '9 5' },
  { colour: '#5a4a8a', dash: '2 4' },
  { colour: '#7d5200', dash: '12 4 2 4' },
  { colour: '#2b5a86', dash: '5 3' },
  { colour: '#8a2f55', dash: '14 5' },
] as const;

export const threadOf = (index: number) => THREADS[index % THREADS.length] ?? THREADS[0];
