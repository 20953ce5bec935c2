import { fireEvent, render, screen } from '@testing-library/react';
import { describe, expect, test } from 'vitest';
import type { Schemas, TargetReport } from '@/api/client';
import { TargetTold } from './TargetTold';

const ceiling = (change: Partial<Schemas['CeilingView']>): Schemas['CeilingView'] => ({
  kind: 'roof',
  title: 'Roof',
  limit_kind: 'note',
  modules: 28,
  value: 28,
  sum: {
    symbols: 'n roof',
    numbers: '28',
    givens: [{ symbol: 'n_roof', label: 'proven', value: 28, unit: '', origin: 'fill' }],
  },
  source: 'proven fill of this survey',
  source_status: 'geometry',
  reason: '',
  passed: false,
  ...change,
});

const report = (change: Partial<TargetReport>): TargetReport => ({
  option_id: 'a',
  title: 'Net zero',
  need_kwh: 21310,
  target_kwh: 21310,
  target_modules: 30,
  target_dc_kw: 12.15,
  target_sum: { symbols: '', numbers: '', givens: [] },
  target_value: 29.2,
  target_reason: '',
  net_zero_modules: 29.2,
  module_w: 405,
  yield_kwh_per_kw: 1802,
  yield_origin: 'simulated for this design',
  yield_simulated: true,
  monthly_kwh: [],
  monthly_title: '28 modules',
  modules_now: 28,
  energy_kwh: 20430,
  against_need_frac: 0.9587,
  ceilings: [ceiling({})],
  binding: 'roof',
  spare: -2,
  told: '',
  routes: [],
  ...change,
});

describe('the target in the Tally', () => {
  test('tells usage, count and the first ceiling', () => {
    const { container } = render(<TargetTold target={report({})} />);
    const words = container.textContent ?? '';
    expect(words).toContain('Against usage96 %of 21 310 kWh');
    expect(words).toContain('Target30 modules2 short');
    expect(words).toContain('First ceiling: roof28ends it, 2 short');
  });

  test.each([
    [0, 'just enough'],
    [3, '3 to spare'],
  ])('a spare of %d reads “%s”', (spare, words) => {
    render(<TargetTold target={report({ spare })} />);
    expect(screen.getByRole('button').textContent).toContain(words);
  });

  test.each([
    [30, 'reached'],
    [33, '3 over'],
  ])('%d modules are “%s”', (modules_now, words) => {
    const { container } = render(<TargetTold target={report({ modules_now })} />);
    expect(container.textContent).toContain(words);
  });

  test('the ceiling opens into its sum, in place', () => {
    render(<TargetTold target={report({})} />);
    expect(screen.queryByText('= 28')).toBeNull();
    fireEvent.click(screen.getByRole('button', { name: /First ceiling/ }));
    expect(screen.getByText('= 28')).toBeTruthy();
    expect(screen.getByText('proven: fill')).toBeTruthy();
  });

  test('a ceiling the design passes is told by its kind', () => {
    const cap = ceiling({
      kind: 'size-cap',
      title: 'Size cap',
      limit_kind: 'outside',
      modules: 25,
      passed: true,
    });
    render(<TargetTold target={report({ ceilings: [ceiling({}), cap] })} />);
    expect(screen.getByText('Outside: 28 modules pass the size cap at 25')).toBeTruthy();
  });

  test('a first guess says what it rests on', () => {
    render(
      <TargetTold
        target={report({
          yield_simulated: false,
          yield_origin: 'first guess',
          energy_kwh: null,
          against_need_frac: null,
        })}
      />,
    );
    expect(screen.getByText('With 1 802 kWh/kW, first guess.')).toBeTruthy();
    expect(screen.queryByText('Against usage')).toBeNull();
  });

  test('without bills it sends one to the brief', () => {
    render(<TargetTold target={report({ need_kwh: null, target_modules: null })} />);
    expect(screen.getByText('No use yet: type the bills in the Brief.')).toBeTruthy();
  });
});
