import type { StepManifest } from '@/plan/manifest';
import { VIEWS } from './views';

export const sheets: StepManifest = {
  id: 'sheets',
  title: 'Sheets',
  words: 'print pdf export plan set permit paper',
  views: VIEWS,
  fetch: () => import('./SheetsStep'),
};
