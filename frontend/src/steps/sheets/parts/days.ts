/** Days as the server writes them, `2026-12-02`: counted and moved without a clock of one's own. */
const DAY_MS = 86_400_000;
const at = (day: string) => Date.parse(`${day}T00:00:00Z`);

export const daysBetween = (from: string, to: string) => Math.round((at(to) - at(from)) / DAY_MS);

export const daysLater = (day: string, days: number) =>
  new Date(at(day) + days * DAY_MS).toISOString().slice(0, 10);
