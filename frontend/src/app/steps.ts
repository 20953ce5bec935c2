/** The ten steps in the order of work: what each tells of itself. */
import type { Schemas } from '@/api/client';
import type { StepManifest } from '@/plan/manifest';
import { array } from '@/steps/array/manifest';
import { brief } from '@/steps/brief/manifest';
import { build } from '@/steps/build/manifest';
import { loading } from '@/steps/loading/manifest';
import { money } from '@/steps/money/manifest';
import { proving } from '@/steps/proving/manifest';
import { sheets } from '@/steps/sheets/manifest';
import { strings } from '@/steps/strings/manifest';
import { sun } from '@/steps/sun/manifest';
import { survey } from '@/steps/survey/manifest';
import type { Shape } from '@/ui/Mark';

export const STEPS: readonly StepManifest[] = [
  brief,
  survey,
  array,
  sun,
  strings,
  loading,
  build,
  money,
  sheets,
  proving,
];

export const stepOf = (id: string | undefined) => STEPS.find((step) => step.id === id);

export const SHAPES: Record<Schemas['StepState'], Shape> = {
  settled: 'circle',
  look: 'triangle',
  stop: 'square',
  'not-begun': 'ring',
};
