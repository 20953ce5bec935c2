import { render, screen } from '@testing-library/react';
import { expect, test } from 'vitest';
import type { Schemas } from '@/api/client';
import { VoltageWindow } from './VoltageWindow';

const tracker: Schemas['TrackerView'] = {
  number: 1,
  inverter: '',
  held_v: null,
  held_a: null,
  strings: ['A'],
  modules_in_series: 13,
  v_min_v: 120,
  v_max_v: 520,
  v_start_v: 120,
  v_limit_v: 600,
  v_hot_v: 356,
  v_cold_v: 554,
  planes: ['South roof'],
  i_operating_a: 13,
  i_hot_a: 13.2,
  i_operating_max_a: 16,
  i_short_a: 17.3,
  i_short_max_a: 22,
};

const frame = (container: HTMLElement) => container.querySelectorAll('rect')[2];

test('the window is read out with its numbers', () => {
  const { container } = render(<VoltageWindow tracker={tracker} />);
  const name = 'Hottest Vmp 356 V, coldest Voc 554 V, tracking 120 to 520 V, limit 600 V';
  expect(screen.getByRole('img', { name })).toBeTruthy();
  expect(frame(container)?.getAttribute('stroke')).toBe('var(--color-ink)');
});

test('a string past the limit is framed in the colour of a Stop and stays on the picture', () => {
  const { container } = render(<VoltageWindow tracker={{ ...tracker, v_cold_v: 700 }} />);
  expect(frame(container)?.getAttribute('stroke')).toBe('var(--color-stop)');
  const right =
    Number(frame(container)?.getAttribute('x')) + Number(frame(container)?.getAttribute('width'));
  expect(right).toBeLessThanOrEqual(244);
});

test('without a coldest temperature the frame is open and says not checked', () => {
  const { container } = render(<VoltageWindow tracker={{ ...tracker, v_cold_v: null }} />);
  expect(screen.getByText('cold: not checked')).toBeTruthy();
  expect(frame(container)?.getAttribute('stroke-dasharray')).toBe('4 3');
});

test('the hot figure stands clear of the words on the cold end', () => {
  render(<VoltageWindow tracker={{ ...tracker, v_cold_v: null, v_hot_v: tracker.v_limit_v }} />);
  const hot = screen.getByText(String(tracker.v_limit_v), { selector: '[y="13"]' });
  const words = screen.getByText('cold: not checked');
  expect(Number(words.getAttribute('x')) - Number(hot.getAttribute('x'))).toBeGreaterThan(110);
});
