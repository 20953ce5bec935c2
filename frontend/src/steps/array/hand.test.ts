import { describe, expect, it } from 'vitest';
import type { Schemas } from '@/api/client';
import { besideEdit, columnOf } from './hand';

const module = { long_m: 2, short_m: 1 } as Schemas['ModuleSheet'];
const at = (id: string, x_m: number, y_m: number, tier: number): Schemas['PlacedModule'] => ({
  id,
  x_m,
  y_m,
  orientation: 'P',
  present: true,
  kept_because: '',
  tier,
});

/** Two tables of two rows at 60°: a module seen from above is 1 m high, the clamp 10 mm. */
const array = {
  plane_id: 'yard',
  leg_tilt_deg: 60,
  gap_in_row: { value_m: 0.02, typed: '20 mm' },
  table: { rows: 2 },
  modules: [
    at('low', 0, 0, 0),
    at('high', 0, 1.01, 1),
    at('behind', 0, 5, 0),
    at('beside', 1.02, 0, 0),
  ],
} as unknown as Schemas['PlaneArray'];

describe('columns of a table', () => {
  it('hold what stands over each other on one table', () => {
    const ids = (id: string) => columnOf(array, module, id).map((m) => m.id);
    expect(ids('high')).toEqual(['low', 'high']);
    expect(ids('low')).toEqual(['low', 'high']);
    expect(ids('behind')).toEqual(['behind']);
    expect(columnOf({ ...array, table: null }, module, 'low').map((m) => m.id)).toEqual(['low']);
  });

  it('are set down beside the lowest of a column', () => {
    const edit = besideEdit('a', array, module, 'high', 'P');
    expect(edit).toMatchObject({ kind: 'add-module', at: { x_m: 1.02, y_m: 0 } });
  });
});
