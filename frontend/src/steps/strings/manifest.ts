import type { StepManifest } from '@/plan/manifest';
import { VIEWS } from './views';

export const strings: StepManifest = {
  id: 'strings',
  title: 'Strings',
  words: 'electrical wiring inverter',
  views: VIEWS,
  sought: [
    { name: 'Inverter', words: 'equipment choose' },
    { name: 'At the modules', words: 'optimizer microinverter electronics' },
    { name: 'Home runs', words: 'box cable wire conductors' },
    { name: 'Plan in words', view: 'plans', words: '14 + 12 typed' },
    {
      name: 'Method for the coldest voltage',
      view: 'rules',
      words: 'table coefficient voc cold',
    },
    { name: 'Ageing off hot string voltages, %', view: 'rules', words: 'degradation' },
    { name: 'How the roof is shut down', view: 'rules', words: 'rapid shutdown firefighter' },
    { name: 'Fuse of every paralleled string', view: 'rules', words: 'overcurrent' },
    { name: 'Most DC:AC of this job', view: 'rules', words: 'loading ratio limit' },
  ],
  keys: [
    ['+ and −', 'one module more or fewer in series'],
    ['A', 'let the planner choose'],
    ['H', 'thread a string by hand; W wires it'],
    ['J', 'add a box for home runs; in hand (Enter) arrows move it, Delete takes it away'],
  ],
  fetch: () => import('./StringsStep'),
};
