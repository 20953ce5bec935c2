import type { StepManifest } from '@/plan/manifest';
import { VIEWS } from './views';

export const strings: StepManifest = {
  id: 'strings',
  title: 'Strings',
  views: VIEWS,
  keys: [
    ['+ and −', 'one module more or fewer in series'],
    ['A', 'let the planner choose'],
    ['H', 'thread a string by hand; W wires it'],
    ['J', 'add a box for home runs; in hand (Enter) arrows move it, Delete takes it away'],
  ],
  fetch: () => import('./StringsStep'),
};
