import { fireEvent, render, screen } from '@testing-library/react';
import { describe, expect, test, vi } from 'vitest';
import type { CheckView } from '@/api/client';
import { LimitRow, toneOf } from './LimitRow';

function view(change: Partial<CheckView['check']>): CheckView {
  const given = (symbol: string, value: number | null) => ({
    symbol,
    label: symbol,
    value,
    unit: 'V',
    origin: 'x',
  });
  return {
    key: 'k',
    check: {
      rule_id: 'strings.cold-voltage',
      family: 'strings',
      step: 'strings',
      title: 'Cold Voc',
      subject: 'string A',
      kind: 'stop',
      formula: 'n * voc',
      givens: [],
      value: given('v', 597),
      relation: '<=',
      limit: given('v_max', 600),
      source: { document: 'd', clause: '', status: 'from-memory' },
      verdict: 'kept',
      margin_frac: 0.005,
      reached_at: '',
      reason: '',
      fixes: [],
      ...change,
    },
    lines: { symbols: '', numbers: '', result: '597 V', limit: '≤ 600 V' },
    value_text: '597 V',
    limit_text: '600 V',
    on_sheet: true,
  };
}

describe('how a check looks', () => {
  test.each([
    ['kept', 'stop', 'good'],
    ['broken', 'stop', 'stop'],
    ['broken', 'outside', 'look'],
    ['broken', 'costs', 'look'],
    ['broken', 'note', 'quiet'],
    ['not-checked', 'stop', 'look'],
    ['not-checked', 'note', 'quiet'],
  ] as const)('%s %s is %s', (verdict, kind, tone) => {
    expect(toneOf(view({ verdict, kind }))).toBe(tone);
  });
});

test('a kept limit shows figure, limit and bar; a click asks for the working', () => {
  const onToggle = vi.fn();
  render(<LimitRow view={view({})} open={false} onToggle={onToggle} />);
  const row = screen.getByRole('button', { name: /Cold Voc string A 597 V of 600 V/ });
  fireEvent.click(row);
  expect(onToggle).toHaveBeenCalledTimes(1);
  expect(screen.queryByText(/limit passed/)).toBeNull();
});

test('a broken Stop says so in words and shape', () => {
  render(<LimitRow view={view({ verdict: 'broken' })} open={false} onToggle={vi.fn()} />);
  expect(screen.getByText('Stop: limit passed')).toBeTruthy();
  expect(screen.getByRole('img', { name: 'a Stop limit is broken' })).toBeTruthy();
});

test('an unchecked limit shows no figure that could be taken for one', () => {
  render(
    <LimitRow
      view={view({ verdict: 'not-checked', margin_frac: null })}
      open={false}
      onToggle={vi.fn()}
    />,
  );
  expect(screen.queryByText('597 V')).toBeNull();
  expect(screen.getByText('Stop: not checked')).toBeTruthy();
});
