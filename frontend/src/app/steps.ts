/** The ten steps in the order of work, and what each will decide until it is built. */
import type { Schemas } from '@/api/client';
import type { Shape } from '@/ui/Mark';

export interface Step {
  id: string;
  title: string;
  unbuilt?: string;
}

export const STEPS: Step[] = [
  { id: 'brief', title: 'Brief' },
  { id: 'survey', title: 'Survey' },
  { id: 'array', title: 'Array' },
  { id: 'sun', title: 'Sun' },
  { id: 'strings', title: 'Strings' },
  { id: 'loading', title: 'Loading' },
  {
    id: 'build',
    title: 'Build',
    unbuilt:
      'Here rails, mounts, conductors, breakers and the one-line diagram will be sized and listed. This step is not built yet.',
  },
  {
    id: 'money',
    title: 'Money',
    unbuilt:
      'Here prices, tariff and incentives will turn the year’s energy into cost, savings and payback, option against option. This step is not built yet.',
  },
  { id: 'sheets', title: 'Sheets' },
  {
    id: 'proving',
    title: 'Proving',
    unbuilt:
      'Here serials, meter readings and expected values will show whether the built array works, and which test to make next. This step is not built yet.',
  },
];

export const SHAPES: Record<Schemas['StepState'], Shape> = {
  settled: 'circle',
  look: 'triangle',
  stop: 'square',
  'not-begun': 'ring',
};
