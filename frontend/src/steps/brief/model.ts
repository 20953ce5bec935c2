/** What the parts of the brief share: how shares and plain figures are written. */
import type { TargetReport } from '@/api/client';
import { figure } from '@/units/format';

/** Each part gets the target, once there is one. */
export interface SectionProps {
  target: TargetReport | undefined;
}

/** A rebate's DC over AC in the wording it was given in: of the inverter, or AC of the array. */
export function rebateRatio(ratio: number): string {
  const [ofAc, ofDc] = [ratio * 100, 100 / ratio];
  const whole = (value: number) => Math.abs(value - Math.round(value)) < 1e-9;
  return whole(ofDc) && !whole(ofAc) ? `AC at least ${figure(ofDc)} %` : percent(ratio);
}

export const percent = (frac: number) => `${figure(frac * 100, 1).replace(/\.0$/, '')} %`;

/** A number without false zeros behind its point; nothing for nothing. */
export function plain(value: number | null, places = 2): string {
  if (value === null) return '';
  const text = figure(value, places);
  return text.includes('.') ? text.replace(/\.?0+$/, '') : text;
}
