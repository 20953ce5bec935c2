/** A module as it lies on its plane. */
import type { Schemas } from '@/api/client';

export type Orientation = Schemas['Orientation'];

export interface SizeM {
  widthM: number;
  heightM: number;
}

/** What the plane shows of a module; held up on legs it covers less of it. */
export function sizeOf(
  sheet: Schemas['ModuleSheet'],
  orientation: Orientation,
  legTiltDeg = 0,
): SizeM {
  const seen = Math.cos((legTiltDeg * Math.PI) / 180);
  return orientation === 'P'
    ? { widthM: sheet.short_m, heightM: sheet.long_m * seen }
    : { widthM: sheet.long_m, heightM: sheet.short_m * seen };
}
