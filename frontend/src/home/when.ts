/** When a job was last touched, as people say it, and the heading it stands under. */
import { clock, MONTHS } from '@/units/format';

const DAY_MS = 86_400_000;

const dayOf = (at: Date) => new Date(at.getFullYear(), at.getMonth(), at.getDate()).getTime();

/** How many midnights lie between. */
const daysAgo = (iso: string, now: Date) =>
  Math.round((dayOf(now) - dayOf(new Date(iso))) / DAY_MS);

export function touched(iso: string, now: Date): string {
  const at = new Date(iso);
  const days = daysAgo(iso, now);
  if (days <= 0) return `today ${clock(iso)}`;
  if (days === 1) return `yesterday ${clock(iso)}`;
  const year = at.getFullYear() === now.getFullYear() ? '' : ` ${at.getFullYear()}`;
  return `${at.getDate()} ${MONTHS[at.getMonth()]}${year}`;
}

export function heading(iso: string, now: Date): string {
  const at = new Date(iso);
  const days = daysAgo(iso, now);
  if (days <= 0) return 'Today';
  if (days < 7) return 'In the last seven days';
  return `${MONTHS[at.getMonth()]} ${at.getFullYear()}`;
}
