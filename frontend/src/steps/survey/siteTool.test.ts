import { expect, test } from 'vitest';
import { clickedSite, LOOK, type SiteClick, type SiteTool } from './siteTool';

const spot = (east_m: number, north_m: number): SiteClick => ({
  on: 'spot',
  at: { east_m, north_m },
});
const edge = (planeId: string, n: number): SiteClick => ({
  on: 'edge',
  edge: { planeId, edge: n },
});

function outcomeOf(tool: SiteTool, ...clicks: SiteClick[]) {
  let outcome = { tool } as ReturnType<typeof clickedSite>;
  for (const click of clicks) outcome = clickedSite(outcome.tool, click);
  return outcome;
}

test('a lot line is closed by its first point, or left open by Enter', () => {
  const round = [spot(0, 0), spot(20, 0), spot(20, 15)];
  const lot: SiteTool = { kind: 'lot', points: [] };
  expect(outcomeOf(lot, ...round, spot(0.4, 0.3)).edit).toMatchObject({
    kind: 'add-lot-line',
    closed: true,
  });
  expect(outcomeOf(lot, ...round, { on: 'done' }).edit).toMatchObject({ closed: false });
  expect(outcomeOf(lot, spot(0, 0), { on: 'done' }).edit).toBeUndefined();
});

test('a trench turns where it is clicked and ends at the panel', () => {
  const trench: SiteTool = { kind: 'trench', planeId: 'yard', points: [] };
  expect(outcomeOf(trench, spot(1, 2), spot(3, 2), { on: 'done' }).edit).toEqual({
    kind: 'set-trench-route',
    plane_id: 'yard',
    points: [
      { east_m: 1, north_m: 2 },
      { east_m: 3, north_m: 2 },
    ],
  });
  expect(outcomeOf(trench, { on: 'done' }).edit).toMatchObject({ points: [] });
});

test('two corners of an eave face a plane', () => {
  const { tool, edit } = outcomeOf(
    { kind: 'face', planeId: 'south', left: null },
    spot(0, 0),
    spot(12.00049, 1),
  );
  expect(tool).toEqual(LOOK);
  expect(edit).toEqual({
    kind: 'face-by-corners',
    plane_id: 'south',
    left: { east_m: 0, north_m: 0 },
    right: { east_m: 12, north_m: 1 },
  });
});

test('edges of two planes are joined; of one plane the later click counts', () => {
  const join: SiteTool = { kind: 'join', first: null };
  expect(outcomeOf(join, edge('a', 0), edge('a', 2), edge('b', 1)).edit).toEqual({
    kind: 'join-edges',
    plane_id: 'a',
    edge: 2,
    other_id: 'b',
    other_edge: 1,
  });
});

test('two points of the picture ask for their distance', () => {
  const { scale } = outcomeOf({ kind: 'scale', first: null }, spot(1, 1), spot(5, 1));
  expect(scale).toHaveLength(2);
});

test.each([
  [
    { kind: 'shade', what: 'tree' },
    { kind: 'add-shade', shade_kind: 'tree' },
  ],
  [
    { kind: 'gear', what: 'meter' },
    { kind: 'place-gear', gear: 'meter' },
  ],
] as [SiteTool, object][])('%j is placed by one click', (tool, edit) => {
  expect(outcomeOf(tool, spot(3, 4))).toMatchObject({
    tool: LOOK,
    edit: { ...edit, at: { east_m: 3, north_m: 4 } },
  });
});
