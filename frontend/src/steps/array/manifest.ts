import type { StepManifest } from '@/plan/manifest';

export const array: StepManifest = {
  id: 'array',
  title: 'Array',
  words: 'layout modules panels roof plan',
  sought: [
    { name: 'Module', words: 'panel type wattage equipment' },
    { name: 'Gap in row', reach: ['Fill', 'Gap in row'], words: 'spacing' },
    { name: 'Shortest run', reach: ['Fill', 'Shortest run'], words: 'row' },
    {
      name: 'How the modules are mounted',
      reach: ['Fill', 'How the modules are mounted'],
      words: 'rack flush stand-off heat',
    },
    { name: 'Setbacks', words: 'fire path free strips' },
    { name: 'Exact count', reach: ['Exact count', 'Modules on this plane'], words: 'number of' },
    { name: 'Why not one more', words: 'fit more panels' },
  ],
  keys: [
    ['P, L, M', 'the best layout in portrait, in landscape, in mixed rows'],
    [', and .', 'step through the layouts'],
    ['Arrows', 'walk among the modules'],
    ['Space', 'take the module off or put it back'],
    ['H', 'hold the module, or let it go; with Shift its whole row'],
    ['Arrows on a held module', 'move what is held by a gap, with Shift 10 mm'],
    ['R', 'turn what is held'],
    ['G', 'the gap to the left: splits the row there'],
    ['N', 'add a module: click where, or Enter for beside the one in focus'],
    ['K', 'keep it though it is too close, with the reason'],
    ['Delete', 'remove what is held'],
    ['W', 'why not one more'],
  ],
  fetch: () => import('./ArrayStep'),
};
