/** What is in hand on the site plan, and what a click does with it. */
import type { Edit, Schemas } from '@/api/client';

export type ShadeKind = Schemas['ShadeKind'];
export type Gear = Schemas['Gear'];
export type SitePoint = Schemas['SitePoint'];

export interface EdgeAt {
  planeId: string;
  edge: number;
}

export type SiteTool =
  | { kind: 'look' }
  | { kind: 'shade'; what: ShadeKind }
  | { kind: 'gear'; what: Gear }
  | { kind: 'lot'; points: SitePoint[] }
  | { kind: 'trench'; planeId: string; points: SitePoint[] }
  | { kind: 'face'; planeId: string; left: SitePoint | null }
  | { kind: 'join'; first: EdgeAt | null }
  | { kind: 'scale'; first: SitePoint | null };

export type SiteClick =
  | { on: 'spot'; at: SitePoint }
  | { on: 'edge'; edge: EdgeAt }
  | { on: 'done' };

export interface SiteOutcome {
  tool: SiteTool;
  edit?: Edit;
  /** Two points of the picture whose distance is asked for. */
  scale?: [SitePoint, SitePoint];
}

export const LOOK: SiteTool = { kind: 'look' };
/** A click this near the first point closes a lot line, metres. */
const CLOSES_WITHIN_M = 1;

export const rounded = (at: SitePoint): SitePoint => ({
  east_m: Math.round(at.east_m * 1000) / 1000,
  north_m: Math.round(at.north_m * 1000) / 1000,
});
const apart = (a: SitePoint, b: SitePoint) =>
  Math.hypot(a.east_m - b.east_m, a.north_m - b.north_m);

export function clickedSite(tool: SiteTool, click: SiteClick): SiteOutcome {
  switch (tool.kind) {
    case 'look':
      return { tool };
    case 'join':
      return joined(tool.first, click);
    case 'lot':
      return lotDrawn(tool.points, click);
    case 'trench':
      return trenchDrawn(tool, click);
    default:
      return click.on === 'spot' ? placed(tool, rounded(click.at)) : { tool };
  }
}

function placed(
  tool: Extract<SiteTool, { kind: 'shade' | 'gear' | 'face' | 'scale' }>,
  at: SitePoint,
): SiteOutcome {
  switch (tool.kind) {
    case 'shade':
      return { tool: LOOK, edit: { kind: 'add-shade', shade_kind: tool.what, at } };
    case 'gear':
      return { tool: LOOK, edit: { kind: 'place-gear', gear: tool.what, at } };
    case 'face':
      if (tool.left === null) return { tool: { ...tool, left: at } };
      return {
        tool: LOOK,
        edit: { kind: 'face-by-corners', plane_id: tool.planeId, left: tool.left, right: at },
      };
    case 'scale':
      if (tool.first === null) return { tool: { kind: 'scale', first: at } };
      return { tool: LOOK, scale: [tool.first, at] };
  }
}

function joined(first: EdgeAt | null, click: SiteClick): SiteOutcome {
  if (click.on !== 'edge') return { tool: { kind: 'join', first } };
  const { edge } = click;
  if (first === null || first.planeId === edge.planeId)
    return { tool: { kind: 'join', first: edge } };
  return {
    tool: LOOK,
    edit: {
      kind: 'join-edges',
      plane_id: first.planeId,
      edge: first.edge,
      other_id: edge.planeId,
      other_edge: edge.edge,
    },
  };
}

function lotDrawn(points: SitePoint[], click: SiteClick): SiteOutcome {
  const [first] = points;
  if (click.on === 'spot') {
    const at = rounded(click.at);
    if (first && points.length >= 3 && apart(first, at) < CLOSES_WITHIN_M)
      return { tool: LOOK, edit: { kind: 'add-lot-line', points, closed: true } };
    const last = points.at(-1);
    if (last && apart(last, at) < 0.05) return { tool: { kind: 'lot', points } };
    return { tool: { kind: 'lot', points: [...points, at] } };
  }
  if (click.on === 'done' && points.length >= 2)
    return { tool: LOOK, edit: { kind: 'add-lot-line', points, closed: false } };
  return { tool: { kind: 'lot', points } };
}

function trenchDrawn(tool: Extract<SiteTool, { kind: 'trench' }>, click: SiteClick): SiteOutcome {
  const { planeId, points } = tool;
  if (click.on === 'spot') return { tool: { ...tool, points: [...points, rounded(click.at)] } };
  if (click.on === 'done')
    return { tool: LOOK, edit: { kind: 'set-trench-route', plane_id: planeId, points } };
  return { tool };
}

const SHADE_WORDS: Record<ShadeKind, string> = {
  tree: 'the trunk',
  house: 'the middle of the house',
  pole: 'the pole',
  chimney: 'the chimney',
};

export function siteHint(tool: SiteTool): string {
  switch (tool.kind) {
    case 'look':
      return '';
    case 'shade':
      return `Click where ${SHADE_WORDS[tool.what]} stands; bearing and distance can be typed then.`;
    case 'gear':
      return `Click where the ${tool.what} hangs.`;
    case 'lot':
      return tool.points.length < 2
        ? 'Click along the lot line.'
        : 'Click on; the first point closes it, Enter leaves it open.';
    case 'trench':
      return 'Click where the trench turns on its way to the panel; Enter ends it, without a click straight.';
    case 'face':
      return tool.left === null
        ? 'Facing the roof from outside, click the eave’s left corner.'
        : 'Click the eave’s right corner.';
    case 'join':
      return tool.first === null
        ? 'Click the edge of the plane that moves.'
        : 'Click the edge of the other plane it meets.';
    case 'scale':
      return tool.first === null
        ? 'Click a point of the picture that you can measure from.'
        : 'Click the point you measured to.';
  }
}
