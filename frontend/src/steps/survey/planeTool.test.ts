import { describe, expect, test } from 'vitest';
import type { PointM } from '@/drawing/camera';
import { clicked, LOOK, type PlaneClick, type PlaneTool } from './planeTool';

const spot = (xM: number, yM: number): PlaneClick => ({ on: 'spot', spot: { xM, yM } });
const corner = (n: number): PlaneClick => ({ on: 'corner', corner: n });
const edge = (n: number): PlaneClick => ({ on: 'edge', edge: n });

function outcomeOf(tool: PlaneTool, ...clicks: PlaneClick[]) {
  let outcome = { tool } as ReturnType<typeof clicked>;
  for (const click of clicks) outcome = clicked('south', outcome.tool, click, [2]);
  return outcome;
}

describe('a sketch', () => {
  const sketch: PlaneTool = { kind: 'sketch', points: [] };
  const round = [spot(0, 0), spot(4, 0), spot(4, 3)];
  test('is closed by its first corner and becomes one edit', () => {
    const { tool, edit } = outcomeOf(sketch, ...round, spot(0.1, 0.1));
    expect(tool).toEqual(LOOK);
    expect(edit).toMatchObject({
      kind: 'sketch-outline',
      corners: [
        { x_m: 0, y_m: 0 },
        { x_m: 4, y_m: 0 },
        { x_m: 4, y_m: 3 },
      ],
    });
  });
  test('is closed by Enter too, but never with two corners', () => {
    expect(outcomeOf(sketch, ...round, { on: 'done' }).edit?.kind).toBe('sketch-outline');
    expect(outcomeOf(sketch, spot(0, 0), spot(4, 0), { on: 'done' }).edit).toBeUndefined();
  });
  test('takes a double click for one', () => {
    const { tool } = outcomeOf(sketch, spot(0, 0), spot(0, 0), spot(4, 0));
    expect((tool as { points: PointM[] }).points).toHaveLength(2);
  });
});

test('a zone asks for its reason once it is closed', () => {
  const keepOut: PlaneTool = { kind: 'keep-out', points: [] };
  expect(outcomeOf(keepOut, spot(1, 1), spot(2, 1), spot(2, 2), { on: 'done' }).zone).toHaveLength(
    3,
  );
});

test.each([
  [{ kind: 'diagonal', from: null }, [corner(0), corner(2)], { reading: 'diagonal', at: [0, 2] }],
  [{ kind: 'offset', corner: null }, [corner(3), edge(0)], { reading: 'offset', at: [3, 0] }],
  [
    { kind: 'along', corner: null },
    [edge(1), corner(3), edge(0)],
    { reading: 'along', at: [3, 0] },
  ],
] as [PlaneTool, PlaneClick[], object][])('%j asks for its reading', (tool, clicks, wanted) => {
  expect(outcomeOf(tool, ...clicks)).toEqual({ tool: LOOK, wanted });
});

test('a corner clicked twice is no diagonal', () => {
  expect(outcomeOf({ kind: 'diagonal', from: null }, corner(1), corner(1)).tool).toEqual({
    kind: 'diagonal',
    from: null,
  });
});

test.each([
  [{ kind: 'square' }, [corner(1)], { reading: 'right_angle', at: [1], on: true }],
  [{ kind: 'square' }, [corner(2)], { reading: 'right_angle', at: [2], on: false }],
  [
    { kind: 'parallel', edge: null },
    [edge(0), edge(2)],
    { reading: 'parallel', at: [0, 2], on: true },
  ],
  [
    { kind: 'in-line', corner: null },
    [corner(4), edge(0)],
    { reading: 'on_line', at: [4, 0], on: true },
  ],
] as [PlaneTool, PlaneClick[], object][])('%j marks the outline', (tool, clicks, marked) => {
  expect(outcomeOf(tool, ...clicks).edit).toMatchObject({ kind: 'mark-outline', ...marked });
});

test('a thing is placed to the centimetre and the hand is empty again', () => {
  const { tool, edit } = outcomeOf({ kind: 'place', what: 'flue' }, spot(2.3456, 1.2));
  expect(tool).toEqual(LOOK);
  expect(edit).toMatchObject({ obstruction_kind: 'flue', left_m: 2.35, bottom_m: 1.2 });
});
