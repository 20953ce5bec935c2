/** What the parts of the brief share: how money and options are written. */
import type { TargetReport } from '@/api/client';
import { figure } from '@/units/format';

/** Each part gets the target, once there is one. */
export interface SectionProps {
  target: TargetReport | undefined;
}

/** Money as it is typed and shown: whole cents only where they matter. */
export function money(cents: number | null, currency = ''): string {
  if (cents === null) return '';
  const whole = Math.abs(cents % 100) < 0.005 && Math.abs(cents) >= 100_00;
  return `${currency}${figure(cents / 100, whole ? 0 : 2)}`;
}

export const percent = (frac: number) => `${figure(frac * 100, 1).replace(/\.0$/, '')} %`;

/** A number without false zeros behind its point; nothing for nothing. */
export function plain(value: number | null, places = 2): string {
  if (value === null) return '';
  const text = figure(value, places);
  return text.includes('.') ? text.replace(/\.?0+$/, '') : text;
}
