/** The kinds of obstruction in the words of the interface, with the keys that place them. */
import type { ObstructionKind } from './planeTool';

export const OBSTRUCTION_KINDS: { kind: ObstructionKind; title: string; hint?: string }[] = [
  { kind: 'vent', title: 'Vent', hint: 'V' },
  { kind: 'chimney', title: 'Chimney', hint: 'C' },
  { kind: 'skylight', title: 'Skylight', hint: 'S' },
  { kind: 'flue', title: 'Flue' },
  { kind: 'box-vent', title: 'Box vent' },
  { kind: 'dish', title: 'Dish' },
  { kind: 'hatch', title: 'Hatch' },
  { kind: 'other', title: 'Other obstruction' },
];

export const obstructionTitle = (kind: ObstructionKind) =>
  OBSTRUCTION_KINDS.find((k) => k.kind === kind)?.title ?? '';
