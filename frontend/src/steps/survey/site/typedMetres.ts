/** A typed length for an edit that travels in metres; refused in words where it is none. */
import { type LengthUnit, parseLengthM } from '@/units/length';

export async function typedMetres(typed: string, unit: LengthUnit): Promise<number> {
  const metres = parseLengthM(typed, unit);
  if (metres === null) throw new Error(`“${typed}” was not understood. Type a length.`);
  return metres;
}
