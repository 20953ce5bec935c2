import { expect, test } from 'vitest';
import { meaningOf } from '@/ui/Term';
import { STEP_TITLES } from './stages';

test('every loss of the chain that is a term of the trade has its line', () => {
  const plain = new Set([
    'sunlight',
    'shade',
    'snow',
    'optimizers',
    'wiring',
    'conversion',
    'ac-wiring',
  ]);
  for (const [step, title] of Object.entries(STEP_TITLES))
    if (!plain.has(step)) expect(meaningOf(title), title).toBeTruthy();
});
