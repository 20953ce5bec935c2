/** Wind, snow and forces as a person of the job's unit types them; the server reads them back. */
import { figure } from './format';
import type { LengthUnit } from './length';

const M_PER_S_PER_MPH = 0.44704;
const PA_PER_PSF = 47.880259;
const N_PER_LB = 4.4482216;

export const windTyped = (mPerS: number | null, unit: LengthUnit) => {
  if (mPerS === null) return '';
  return unit === 'ft' ? `${figure(mPerS / M_PER_S_PER_MPH)} mph` : `${figure(mPerS, 1)} m/s`;
};

export const snowTyped = (pa: number | null, unit: LengthUnit) => {
  if (pa === null) return '';
  return unit === 'ft' ? `${figure(pa / PA_PER_PSF)} psf` : `${figure(pa / 1000, 2)} kPa`;
};

export const forceTyped = (n: number | null, unit: LengthUnit) => {
  if (n === null) return '';
  return unit === 'ft' ? `${figure(n / N_PER_LB)} lb` : `${figure(n)} N`;
};
