import { fireEvent, render, screen } from '@testing-library/react';
import { expect, test, vi } from 'vitest';
import type { Schemas } from '@/api/client';
import type { Alternative } from '../queries';
import { AlternativeCard } from './AlternativeCard';

const scene = {
  corners: [
    { xM: 0, yM: 0 },
    { xM: 10, yM: 0 },
    { xM: 10, yM: 5 },
    { xM: 0, yM: 5 },
  ],
  edges: [],
  keepOuts: [],
  existing: [],
  raftersXM: [],
  purlinsYM: [],
  ribsXM: [],
  azimuthDeg: 180,
  obstructions: [],
  note: '',
};

const alternative: Alternative = {
  key: 'P aligned',
  ways: 'P',
  rule: 'aligned',
  path_name: '',
  count: 2,
  at_most: 2,
  p_dc_w: 810,
  energy_kwh: 1404,
  rows: 1,
  per_row: 2,
  rail_m: 4.64,
  posts: null,
  in_use: false,
  places: [
    { x_m: 1, y_m: 1, orientation: 'P' },
    { x_m: 2.2, y_m: 1, orientation: 'L' },
  ],
};
const module = { long_m: 1.7, short_m: 1.1 } as Schemas['ModuleSheet'];

const card = (change: Partial<Alternative>, onUse = vi.fn(), stale = false) =>
  render(
    <AlternativeCard
      alternative={{ ...alternative, ...change }}
      module={module}
      scene={scene}
      unit="m"
      stale={stale}
      onUse={onUse}
    />,
  );
const told = (name: string) => screen.getByRole('region', { name: new RegExp(name) }).textContent;

test('a proven count says so, with power, a first year, rows and rail', () => {
  const { container } = card({});
  expect(told('Portrait fill')).toContain('one column grid, proven');
  expect(told('Portrait fill')).toContain('0.81 kW, about 1 400 kWh');
  expect(told('Portrait fill')).toContain('1 row of 2, rail 4.64 m');
  expect(container.querySelectorAll('rect')).toHaveLength(2);
});

test('each module of a mixed layout is drawn its own way round', () => {
  const { container } = card({ ways: 'PL' });
  const [upright, lying] = [...container.querySelectorAll('rect')].map(
    (r) => Number(r.getAttribute('height')) / Number(r.getAttribute('width')),
  );
  expect(upright).toBeCloseTo(1.7 / 1.1);
  expect(lying).toBeCloseTo(1.1 / 1.7);
});

test('an unproven count says what it is at most', () => {
  card({ ways: 'L', rule: 'independent', at_most: 3 });
  expect(told('Landscape fill')).toContain('2, at most 3');
  expect(told('Landscape fill')).toContain('rows free sideways');
});

test('the path is named where the roof asks for one', () => {
  card({ path_name: 'left rake' });
  expect(told('Portrait fill')).toContain('path at left rake');
});

test('the layout on the roof is not offered again; another one is', () => {
  const onUse = vi.fn();
  card({ in_use: true });
  expect(screen.getByText('On the roof now')).toBeTruthy();
  card({ ways: 'L' }, onUse);
  fireEvent.click(screen.getByRole('button', { name: 'Use this fill' }));
  expect(onUse).toHaveBeenCalledTimes(1);
});

test('a layout of an older roof or module is not laid while the new ones are counted', () => {
  const onUse = vi.fn();
  card({}, onUse, true);
  fireEvent.click(screen.getByRole('button', { name: 'Use this fill' }));
  expect(onUse).not.toHaveBeenCalled();
});
