import type { StepManifest } from '@/plan/manifest';
import { VIEWS } from './views';

export const sun: StepManifest = {
  id: 'sun',
  title: 'Sun',
  words: 'shading light irradiance',
  views: VIEWS,
  sought: [
    {
      name: 'Weather file',
      view: 'weather',
      reach: ['Choose a weather file'],
      words: 'epw csv upload import',
    },
    { name: 'Soiling', view: 'weather', reach: ['Soiling, Jan'], words: 'dirt dust' },
    { name: 'Snow falls', view: 'weather', reach: ['Snow falls, Jan'], words: 'winter' },
    {
      name: 'Ground throws back',
      view: 'weather',
      reach: ['Ground throws back, Jan'],
      words: 'albedo reflection',
    },
  ],
  keys: [
    [', and .', 'shade: month by month; shadows: 15 minutes back and on'],
    ['Y', 'shade: the whole year'],
    ['[ and ]', 'shadows, sun path: the day before, the day after'],
    ['P', 'shadows: play it, stop'],
    ['V', 'sun path: from above, from the roof'],
  ],
  fetch: () => import('./SunStep'),
};
