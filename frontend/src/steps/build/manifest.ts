import type { StepManifest } from '@/plan/manifest';

export const build: StepManifest = {
  id: 'build',
  title: 'Build',
  words: 'rails mounts conductors one-line',
  unbuilt:
    'Here rails, mounts, conductors, breakers and the one-line diagram will be sized and listed. This step is not built yet.',
};
