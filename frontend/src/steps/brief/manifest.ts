import type { StepManifest } from '@/plan/manifest';
import { SOUGHT, VIEWS } from './views';

export const brief: StepManifest = {
  id: 'brief',
  title: 'Brief',
  words: 'customer need bills',
  views: VIEWS,
  sought: SOUGHT,
  keys: [
    ['Enter', 'in a bill: to the same column of the next row'],
    ['Arrows up and down', 'in a bill: walk the column'],
    ['Ctrl or ⌘ V', 'in a bill: a pasted column fills downwards, a pasted table becomes rows'],
    ['Arrows on the target', 'one module more or fewer, with Shift five'],
  ],
  fetch: () => import('./BriefStep'),
};
