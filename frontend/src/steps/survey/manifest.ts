import type { StepManifest } from '@/plan/manifest';
import { SOUGHT, VIEWS } from './views';

export const survey: StepManifest = {
  id: 'survey',
  title: 'Survey',
  words: 'measure roof site',
  views: VIEWS,
  sought: SOUGHT,
  keys: [
    ['B', 'plane: sketch the outline by clicking'],
    ['D', 'plane: a diagonal between two corners'],
    ['F', 'plane: a corner square off a side'],
    ['Q', 'plane: mark corners drawn square'],
    ['V, C, S', 'plane: place a vent, a chimney, a skylight'],
    ['K', 'plane: draw a keep-out zone'],
    ['T, H', 'site: place a tree, a house'],
    ['L', 'site: draw a lot line'],
    ['J', 'site: join the edges of two planes'],
    ['A', 'site: place the plane by the ends of its eave'],
    ['Enter', 'close what is being drawn; take a thing in hand'],
    ['Arrows', 'walk among the things; move what is in hand 100 mm, with Shift 10 mm'],
    ['Delete', 'remove what is chosen'],
  ],
  fetch: () => import('./SurveyStep'),
};
