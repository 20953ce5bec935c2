import { render, screen } from '@testing-library/react';
import { describe, expect, test } from 'vitest';
import type { Schemas } from '@/api/client';
import { Understood } from './Understood';

const reading = (change: Partial<Schemas['ReadBill']>): Schemas['ReadBill'] => ({
  id: 'bill1',
  first_day: '2025-01-01',
  last_day: '2025-01-31',
  days: 31,
  energy_kwh: 620,
  from_cost: false,
  cost_cents: null,
  problem: '',
  problem_field: '',
  warning: '',
  ...change,
});

describe('what is said beside a bill', () => {
  test.each([
    [{}, '31 days, 20.0 kWh a day'],
    [{ energy_kwh: null }, '31 days, kWh to be typed'],
    [{ from_cost: true }, '620 kWh from the money; 31 days, 20.0 kWh a day'],
    [{ warning: 'a lot: check it' }, 'a lot: check it'],
  ])('%o', (change, words) => {
    const { container } = render(<Understood reading={reading(change)} />);
    expect(container.textContent).toBe(words);
    expect(screen.queryByRole('alert')).toBeNull();
  });

  test('a problem is an alert and hides the figures', () => {
    render(<Understood reading={reading({ problem: 'Overlaps row 1.' })} />);
    expect(screen.getByRole('alert').textContent).toBe('Overlaps row 1.');
  });

  test('a row without any text says nothing', () => {
    const { container } = render(<Understood reading={undefined} />);
    expect(container.textContent).toBe('');
  });
});
