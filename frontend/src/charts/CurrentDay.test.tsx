import { render, screen } from '@testing-library/react';
import { expect, test } from 'vitest';
import { CurrentDay } from './CurrentDay';

const day = (at: (hour: number) => number) => Array.from({ length: 24 }, (_, h) => at(h));

test('a sum over its limit is shaded and told with both figures', () => {
  const together = day((h) => (h === 12 ? 23.2 : h > 8 && h < 16 ? 12 : 0));
  const { container } = render(
    <CurrentDay
      together={together}
      limitA={16}
      strings={[{ tag: 'A', amps: together.map((a) => a / 2), colour: 'red', dash: '' }]}
      widthPx={300}
      heightPx={160}
    />,
  );
  expect(screen.getByRole('group', { name: 'Together 23.2 A at most, limit 16.0 A' })).toBeTruthy();
  // The shaded part, one string, and the sum.
  expect(container.querySelectorAll('path')).toHaveLength(3);
  expect(container.textContent).toContain('16 A');
});

test('under its limit the limit still stands on the chart', () => {
  const { container } = render(
    <CurrentDay together={day(() => 5)} limitA={16.5} strings={[]} widthPx={300} heightPx={160} />,
  );
  expect(container.textContent).toContain('16.5 A');
});
