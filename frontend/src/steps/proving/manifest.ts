import type { StepManifest } from '@/plan/manifest';

export const proving: StepManifest = {
  id: 'proving',
  title: 'Proving',
  unbuilt:
    'Here serials, meter readings and expected values will show whether the built array works, and which test to make next. This step is not built yet.',
};
