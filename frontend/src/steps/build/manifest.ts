import type { StepManifest } from '@/plan/manifest';
import { VIEWS } from './views';

export const build: StepManifest = {
  id: 'build',
  title: 'Build',
  words: 'rails mounts racking structure wiring circuits one-line panel labels',
  views: VIEWS,
  sought: [
    { name: 'Mounting system', words: 'racking rails feet clamps equipment' },
    { name: 'Wind', words: 'speed design load' },
    { name: 'Ground snow', words: 'design load' },
    { name: 'Exposure', reach: ['Loads', 'Exposure'], words: 'wind terrain' },
    { name: 'Roof height', reach: ['Loads', 'Roof height'], words: 'mean height' },
    {
      name: 'GCp at the edge',
      reach: ['Loads', 'GCp at the edge'],
      words: 'pressure coefficient uplift',
    },
    {
      name: 'City’s limit, a mount',
      reach: ['Loads', 'City’s limit, a mount'],
      words: 'cap uplift pull',
    },
    { name: 'Longest span', words: 'rail limit' },
    { name: 'Longest bare end', words: 'cantilever overhang' },
    { name: 'Rafters as found', words: 'trusses measured tapped' },
    { name: 'A third rail under each row', words: 'three rails snow' },
    { name: 'What lies in it', words: 'trench conduit ditch' },
    { name: 'Terminals marked', view: 'circuits', words: 'lugs temperature 75 60' },
    { name: 'Conduit', view: 'circuits', words: 'raceway pipe EMT PVC' },
    { name: 'Insulation', view: 'circuits', words: 'wire THWN XHHW XLPE' },
    { name: 'Which way', view: 'circuits', words: 'home run cable route' },
    { name: 'Fault current at the panel', view: 'circuits', words: 'short circuit AIC' },
    { name: 'The new breaker breaks', view: 'circuits', words: 'interrupting rating AIC' },
    { name: 'Pieces of rail at hand', view: 'cut', words: 'offcuts stock' },
  ],
  keys: [
    [
      'Arrows',
      'walk among rails and mounts; one in hand (Enter) goes to the next support, a rail across',
    ],
    ['Delete', 'let go of a mount that is held in place'],
  ],
  fetch: () => import('./BuildStep'),
};
