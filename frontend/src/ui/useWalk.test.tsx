import { fireEvent, render, screen, waitFor } from '@testing-library/react';
import { expect, test } from 'vitest';
import { Chart, linesOf, type Reading } from '@/charts/Chart';
import { useHold } from '@/drawing/useHold';
import { pressable } from './pressable';
import { useWalk } from './useWalk';

const READINGS: Reading[] = [1, 2, 3].map((n) => ({ xPx: n * 50, yPx: 20, told: `point ${n}` }));
const chart = (readings: Reading[]) => (
  <Chart label="Light" widthPx={200} heightPx={60} readings={readings}>
    <text>axis</text>
  </Chart>
);
const stops = () => screen.getAllByRole('img').map((point) => point.getAttribute('tabindex'));

test('a chart is one tab stop, walked by arrows, Home and End, and tells what is in focus', () => {
  render(chart(READINGS));
  expect(stops()).toEqual(['0', '-1', '-1']);
  const [first, second, third] = screen.getAllByRole('img');
  first?.focus();
  for (const [key, there] of [
    ['ArrowLeft', first],
    ['ArrowRight', second],
    ['ArrowDown', third],
    ['ArrowRight', third],
    ['Home', first],
    ['End', third],
    ['ArrowUp', second],
  ] as const) {
    fireEvent.keyDown(document.activeElement ?? document.body, { key });
    expect(document.activeElement).toBe(there);
  }
  expect(stops()).toEqual(['-1', '0', '-1']);
  expect(screen.getByText('point 2')).toBeTruthy();
});

test('when the thing in focus goes away another is the tab stop', async () => {
  const { rerender } = render(chart(READINGS));
  screen.getByRole('img', { name: 'point 3' }).focus();
  rerender(chart(READINGS.slice(0, 2)));
  await waitFor(() => expect(stops()).toEqual(['0', '-1']));
});

test('words are parted into lines of at most so many letters', () => {
  expect(linesOf('made 12, used 14', 9)).toEqual(['made 12,', 'used 14']);
  expect(linesOf('unbreakable', 4)).toEqual(['unbreakable']);
});

function Things({ onNudge, onPress }: { onNudge: (id: string) => void; onPress: () => void }) {
  const { hold, told } = useHold(onNudge);
  return (
    <svg {...useWalk('chart')} role="group">
      {['A', 'B'].map((id) => (
        <g
          key={id}
          role="button"
          data-stop=""
          tabIndex={-1}
          aria-label={told(id, id)}
          {...hold(id)}
        />
      ))}
      <g role="checkbox" aria-checked="false" {...pressable(onPress)} />
    </svg>
  );
}

test('arrows move what was taken in hand, and walk again once it is let go', () => {
  const nudged: string[] = [];
  render(<Things onNudge={(id) => nudged.push(id)} onPress={() => nudged.push('pressed')} />);
  const [a, b] = screen.getAllByRole('button');
  const press = (key: string) =>
    fireEvent.keyDown(document.activeElement ?? document.body, { key });
  a?.focus();
  press('Enter');
  expect(a?.getAttribute('aria-label')).toBe('A, in hand: arrows move it');
  press('ArrowRight');
  expect(nudged).toEqual(['A']);
  press('Escape');
  press('ArrowRight');
  expect(document.activeElement).toBe(b);
  press('ArrowRight');
  press('Enter');
  press(' ');
  expect(nudged).toEqual(['A', 'pressed', 'pressed']);
});
