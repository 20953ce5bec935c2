/** A module as it lies on its plane. */
import type { Schemas } from '@/api/client';

export type Orientation = Schemas['Orientation'];

export interface SizeM {
  widthM: number;
  heightM: number;
}

export const sizeOf = (sheet: Schemas['ModuleSheet'], orientation: Orientation): SizeM =>
  orientation === 'P'
    ? { widthM: sheet.short_m, heightM: sheet.long_m }
    : { widthM: sheet.long_m, heightM: sheet.short_m };
