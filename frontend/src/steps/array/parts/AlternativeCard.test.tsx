import { fireEvent, render, screen } from '@testing-library/react';
import { expect, test, vi } from 'vitest';
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

const alternative = {
  orientation: 'P' as const,
  count: 2,
  at_most: 2,
  rows: 1,
  p_dc_w: 810,
  width_m: 1.1,
  height_m: 1.7,
  places: [
    { x_m: 1, y_m: 1 },
    { x_m: 2.2, y_m: 1 },
  ],
};

const card = (change: object, inUse = false, onUse = vi.fn()) =>
  render(
    <AlternativeCard
      alternative={{ ...alternative, ...change }}
      scene={scene}
      inUse={inUse}
      stale={false}
      onUse={onUse}
    />,
  );

test('a proven count says so and draws every module', () => {
  const { container } = card({});
  expect(screen.getByRole('region', { name: 'Portrait fill' }).textContent).toContain(
    '0.81 kW, 1 row, proven',
  );
  expect(container.querySelectorAll('rect')).toHaveLength(2);
});

test('an unproven count says what it is at most', () => {
  card({ orientation: 'L', at_most: 3 });
  expect(screen.getByRole('region', { name: 'Landscape fill' }).textContent).toContain('at most 3');
});

test('the fill on the roof is not offered again; another one is', () => {
  const onUse = vi.fn();
  card({}, true);
  expect(screen.getByText('On the roof now')).toBeTruthy();
  card({ orientation: 'L' }, false, onUse);
  fireEvent.click(screen.getByRole('button', { name: 'Use this fill' }));
  expect(onUse).toHaveBeenCalledTimes(1);
});
