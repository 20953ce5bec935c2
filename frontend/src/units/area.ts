/** Areas in the job's unit. */
import { figure } from './format';
import type { LengthUnit } from './length';

const FT2_PER_M2 = 10.7639;

/** An area with how far it is known. */
export function areaText(areaM2: number, sdM2: number | null, unit: LengthUnit): string {
  const scale = unit === 'm' ? 1 : FT2_PER_M2;
  const places = unit === 'm' ? 1 : 0;
  const known = sdM2 === null ? '' : ` ± ${figure(Math.max(sdM2 * scale, 10 ** -places), places)}`;
  return `${figure(areaM2 * scale, places)}${known} ${unit === 'm' ? 'm²' : 'ft²'}`;
}
