/** Weights and pressures as the job writes them: kilograms, or pounds and pounds a square foot. */
import { figure } from './format';
import type { LengthUnit } from './length';

const LB_PER_KG = 2.2046226;
const PSF_PER_KG_M2 = 0.2048161;

export function formatWeight(kg: number, unit: LengthUnit): string {
  return unit === 'ft' ? `${figure(kg * LB_PER_KG)} lb` : `${figure(kg)} kg`;
}

/** A weight by area as a bare number, and what it is in. */
export function weightByArea(kgPerM2: number, unit: LengthUnit): number {
  return unit === 'ft' ? kgPerM2 * PSF_PER_KG_M2 : kgPerM2;
}

export function formatWeightByArea(kgPerM2: number, unit: LengthUnit): string {
  return `${figure(weightByArea(kgPerM2, unit), 1)} ${unit === 'ft' ? 'psf' : 'kg/m²'}`;
}
