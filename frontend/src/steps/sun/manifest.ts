import type { StepManifest } from '@/plan/manifest';
import { VIEWS } from './views';

export const sun: StepManifest = {
  id: 'sun',
  title: 'Sun',
  views: VIEWS,
  keys: [
    [', and .', 'shade: month by month; shadows: 15 minutes back and on'],
    ['Y', 'shade: the whole year'],
    ['[ and ]', 'shadows, sun path: the day before, the day after'],
    ['P', 'shadows: play it, stop'],
    ['V', 'sun path: from above, from the roof'],
  ],
  fetch: () => import('./SunStep'),
};
