/** How strings look: each has its own hue and its own dash. */
export const THREADS = [
  { colour: 'var(--color-patina)', dash: '' },
  { colour: 'var(--color-copper)', dash: '9 5' },
  { colour: 'var(--color-thread-plum)', dash: '2 4' },
  { colour: 'var(--color-warn)', dash: '12 4 2 4' },
  { colour: 'var(--color-thread-blue)', dash: '5 3' },
  { colour: 'var(--color-thread-rose)', dash: '14 5' },
] as const;

export const threadOf = (index: number) => THREADS[index % THREADS.length] ?? THREADS[0];
