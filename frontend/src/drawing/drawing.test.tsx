import { render, screen } from '@testing-library/react';
import type { ReactNode } from 'react';
import { describe, expect, test } from 'vitest';
import { dimensionMiddle } from './Dimension';
import { ModuleShape } from './ModuleShape';
import { North, ObstructionMark, RoofEdges } from './RoofOutline';
import { THREADS, threadOf } from './threads';

const camera = { pxPerM: 50, originPx: { xPx: 0, yPx: 300 } };
const drawn = (children: ReactNode) => render(<svg aria-label="test">{children}</svg>).container;

describe('north on a plan whose up is up the slope', () => {
  test.each([
    [180, -360], // a south plane seen from the south: north is up
    [90, -270], // an east plane seen from the east, looking west: north is to the right
    [270, -450], // a west plane: north is to the left
  ])('plane azimuth %d turns the arrow by %d', (azimuthDeg, turn) => {
    const svg = drawn(<North xPx={0} yPx={0} azimuthDeg={azimuthDeg} />);
    expect(screen.getByRole('img', { name: /True north/ })).toBeTruthy();
    expect(svg.querySelector('g g')?.getAttribute('transform')).toBe(`rotate(${turn})`);
  });
});

test('a vent is drawn round its centre, a chimney from its near faces', () => {
  const base = { id: 'o', name: 'x', leftM: 2, bottomM: 1, widthM: 0.4, depthM: 0.4 };
  const vent = drawn(<ObstructionMark camera={camera} obstruction={{ ...base, round: true }} />);
  expect(vent.querySelector('rect')?.getAttribute('x')).toBe('90');
  const chimney = drawn(
    <ObstructionMark camera={camera} obstruction={{ ...base, round: false }} />,
  );
  expect(chimney.querySelector('rect')?.getAttribute('x')).toBe('100');
  expect(chimney.querySelector('rect')?.getAttribute('y')).toBe('230');
});

test('edges are drawn by kind: ridge thick copper, eave double', () => {
  const corners = [
    { xM: 0, yM: 0 },
    { xM: 8, yM: 0 },
    { xM: 8, yM: 5 },
    { xM: 0, yM: 5 },
  ];
  const svg = drawn(
    <RoofEdges
      camera={camera}
      corners={corners}
      edges={(['eave', 'rake', 'ridge', 'rake'] as const).map((kind) => ({
        kind,
        state: 'taped',
        stripM: 0,
      }))}
    />,
  );
  const lines = [...svg.querySelectorAll('line')];
  const ridge = lines.filter((l) => l.getAttribute('stroke') === 'var(--color-copper)');
  expect(ridge.map((l) => [l.getAttribute('y1'), l.getAttribute('stroke-width')])).toEqual([
    ['50', '4'],
  ]);
  const level = lines.filter((l) => l.getAttribute('y1') === l.getAttribute('y2'));
  expect(level.filter((l) => l.getAttribute('stroke') === 'var(--color-ink)')).toHaveLength(2);
});

test.each([
  ['portrait', 1.1, 1.7, 'x1'],
  ['landscape', 1.7, 1.1, 'y1'],
] as const)('substrings run along the long side, %s', (_, widthM, heightM, across) => {
  const svg = drawn(
    <ModuleShape
      camera={camera}
      xM={0}
      yM={0}
      widthM={widthM}
      heightM={heightM}
      substrings={3}
      halfCut
      state="on"
    />,
  );
  const hairlines = [...svg.querySelectorAll('g g line')];
  expect(hairlines).toHaveLength(3);
  const short = Math.min(widthM, heightM) * camera.pxPerM;
  expect(Number(hairlines[0]?.getAttribute(across))).toBeCloseTo(short / 3);
});

test('a place without its module is dashed and bare, one that no longer fits is crossed', () => {
  const shape = (state: 'off' | 'misplaced') =>
    drawn(
      <ModuleShape
        camera={camera}
        xM={0}
        yM={0}
        widthM={1}
        heightM={2}
        substrings={3}
        halfCut={false}
        state={state}
      />,
    );
  expect(shape('off').querySelector('rect')?.getAttribute('stroke-dasharray')).toBe('4 4');
  expect(shape('misplaced').querySelectorAll('path')).toHaveLength(1);
});

test('a figure stands in the middle of its dimension line, off the edge', () => {
  const middle = dimensionMiddle({ xPx: 0, yPx: 0 }, { xPx: 100, yPx: 0 }, -40);
  expect(middle).toEqual({ xPx: 50, yPx: -40 });
});

test('each string has its own hue and its own dash', () => {
  expect(new Set(THREADS.map((t) => t.colour)).size).toBe(THREADS.length);
  expect(new Set(THREADS.map((t) => t.dash)).size).toBe(THREADS.length);
  expect(threadOf(THREADS.length)).toBe(THREADS[0]);
});
