import { render } from '@testing-library/react';
import { expect, test } from 'vitest';
import { type PlaneScene, RoofGround } from './RoofGround';
import { RoofEdges } from './RoofOutline';

const camera = { pxPerM: 50, originPx: { xPx: 0, yPx: 300 } };
const scene: PlaneScene = {
  corners: [
    { xM: 0, yM: 0 },
    { xM: 8, yM: 0 },
    { xM: 8, yM: 5 },
    { xM: 0, yM: 5 },
  ],
  edges: (['eave', 'rake', 'ridge', 'rake'] as const).map((kind) => ({
    kind,
    state: 'taped',
    stripM: kind === 'rake' ? 0 : 0.4,
  })),
  azimuthDeg: 180,
  obstructions: [],
  keepOuts: [
    {
      id: 'k1',
      reason: 'stay off',
      ring: [
        { xM: 1, yM: 1 },
        { xM: 2, yM: 1 },
        { xM: 2, yM: 2 },
      ],
    },
  ],
  existing: [
    { id: 'e1', box: { leftM: 1, bottomM: 1, rightM: 5, topM: 4.3 }, columns: 4, rows: 2 },
  ],
  raftersXM: [0.3, 0.9, 1.5],
  purlinsYM: [0.2],
  ribsXM: [],
  note: '',
};

const drawn = (changed: Partial<PlaneScene> = {}) =>
  render(
    <svg aria-label="test">
      <RoofGround camera={camera} scene={{ ...scene, ...changed }} />
    </svg>,
  ).container;

test('strips are hatched only where there are any', () => {
  expect(drawn().querySelectorAll('polygon[fill="url(#hatch)"]')).toHaveLength(2);
});

test('old modules are drawn one by one, apart from what is planned', () => {
  const old = drawn().querySelectorAll('rect[stroke-dasharray]');
  expect(old).toHaveLength(8);
  expect(old[0]?.getAttribute('width')).toBe('50');
});

test('a zone that stays free is hatched the other way, over the roof', () => {
  const zone = drawn().querySelector('polygon[fill="url(#kept-out)"]');
  expect(zone?.getAttribute('points')).toBe('50.0,250.0 100.0,250.0 100.0,200.0');
});

test('rafters run up the slope, purlins across it', () => {
  const lines = [...drawn().querySelectorAll('g[clip-path] line')];
  expect(lines.filter((l) => l.getAttribute('x1') === l.getAttribute('x2'))).toHaveLength(3);
  expect(lines.filter((l) => l.getAttribute('y1') === l.getAttribute('y2'))).toHaveLength(1);
});

test('what is not taped is drawn thinner, what is loose dotted, what is in doubt marked', () => {
  const { container } = render(
    <svg aria-label="edges">
      <RoofEdges
        camera={camera}
        corners={scene.corners}
        edges={[
          { kind: 'rake', state: 'taped', stripM: 0 },
          { kind: 'rake', state: 'derived', stripM: 0 },
          { kind: 'rake', state: 'loose', stripM: 0 },
          { kind: 'rake', state: 'suspect', stripM: 0 },
        ]}
      />
    </svg>,
  );
  const widths = [...container.querySelectorAll('line')].map((l) => l.getAttribute('stroke-width'));
  expect(widths).toEqual(['1.8', '1', '1.6', '10', '1.8']);
  expect(container.querySelectorAll('line')[2]?.getAttribute('stroke-dasharray')).toBe('3 5');
});
