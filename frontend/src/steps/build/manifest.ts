import type { StepManifest } from '@/plan/manifest';
import { VIEWS } from './views';

export const build: StepManifest = {
  id: 'build',
  title: 'Build',
  words: 'rails mounts racking structure',
  views: VIEWS,
  sought: [
    { name: 'Mounting system', words: 'racking rails feet clamps equipment' },
    { name: 'Wind', words: 'speed design load' },
    { name: 'Ground snow', words: 'design load' },
    { name: 'Longest span', words: 'rail limit' },
    { name: 'Longest bare end', words: 'cantilever overhang' },
    { name: 'Rafters as found', words: 'trusses measured tapped' },
    { name: 'Pieces of rail at hand', view: 'cut', words: 'offcuts stock' },
  ],
  keys: [
    ['Arrows', 'walk among the mounts; one in hand (Enter) goes to the next support'],
    ['Delete', 'let go of a mount that is held in place'],
  ],
  fetch: () => import('./BuildStep'),
};
