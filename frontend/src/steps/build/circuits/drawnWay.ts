/** A way of a cable between what the server tells and what it is sent. */
import type { Schemas } from '@/api/client';

/** A way as it is sent: what was typed stays typed. */
export const drawnOf = (leg: Schemas['LegView']): Schemas['DrawnSegment'][] =>
  leg.pieces.map((p) => ({
    lie: p.lie,
    to: p.to,
    length: p.length_typed,
    drop: p.drop_typed,
    above_roof: p.above_typed,
  }));
