import type { StepManifest } from '@/plan/manifest';
import { VIEWS } from './views';

export const loading: StepManifest = {
  id: 'loading',
  title: 'Loading',
  words: 'inverter loading ratio clipping energy year yield production',
  views: VIEWS,
  sought: [{ name: 'AC limit to try', words: 'inverter size clip line' }],
  keys: [
    ['M', 'most clipped day'],
    ['S and W', 'clear summer day, clear winter day'],
    ['Arrows on the limit', 'move it by 100 W, with Shift 10 W'],
  ],
  fetch: () => import('./LoadingStep'),
};
