/** What the parts of the brief share: how shares and plain figures are written. */
import type { TargetReport } from '@/api/client';
import { figure } from '@/units/format';

/** Each part gets the target, once there is one. */
export interface SectionProps {
  target: TargetReport | undefined;
}

export const percent = (frac: number) => `${figure(frac * 100, 1).replace(/\.0$/, '')} %`;

/** A number without false zeros behind its point; nothing for nothing. */
export function plain(value: number | null, places = 2): string {
  if (value === null) return '';
  const text = figure(value, places);
  return text.includes('.') ? text.replace(/\.?0+$/, '') : text;
}
