import type { StepManifest } from '@/plan/manifest';

export const sheets: StepManifest = {
  id: 'sheets',
  title: 'Sheets',
  fetch: () => import('./SheetsStep'),
};
