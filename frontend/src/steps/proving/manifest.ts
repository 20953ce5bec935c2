import type { StepManifest } from '@/plan/manifest';
import { VIEWS } from './views';

export const proving: StepManifest = {
  id: 'proving',
  title: 'Proving',
  words: 'commissioning test fault normal practice',
  views: VIEWS,
  fetch: () => import('./ProvingStep'),
};
