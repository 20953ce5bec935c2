import type { StepManifest } from '@/plan/manifest';

export const sheets: StepManifest = {
  id: 'sheets',
  title: 'Sheets',
  words: 'print pdf export plan set permit paper',
  fetch: () => import('./SheetsStep'),
};
