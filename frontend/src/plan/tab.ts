/** The name of this browser tab, for the history of a job. */
const KEY = 'ridge-tally-tab';

export function tabName(): string {
  const known = sessionStorage.getItem(KEY);
  if (known) return known;
  const made = `tab-${crypto.getRandomValues(new Uint32Array(1))[0]?.toString(36) ?? '0'}`;
  sessionStorage.setItem(KEY, made);
  return made;
}
