/** A module as it lies on its plane. */
import type { Schemas } from '@/api/client';

export type Orientation = Schemas['Orientation'];

export interface SizeM {
  widthM: number;
  heightM: number;
}

/** The datasheet of the modules on a plane: the option's, but for a plane of its own. */
export function moduleOn(
  job: Schemas['Job'],
  option: Schemas['Option'],
  planeId: string,
): Schemas['ModuleSheet'] | undefined {
  const own = option.arrays.find((a) => a.plane_id === planeId)?.module_id;
  return job.equipment.modules.find((m) => m.id === (own ?? option.module_id));
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
