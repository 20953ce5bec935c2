import { fireEvent, render, screen } from '@testing-library/react';
import { expect, test, vi } from 'vitest';
import { AngleMapChart, shadeOf } from './AngleMapChart';
import { DayLines } from './DayLines';
import { SplitChart } from './SplitChart';
import { SweepChart } from './SweepChart';

test('a sweep shows its walls and lets a size be chosen', () => {
  const choose = vi.fn();
  const dots = [1.0, 1.2, 1.5].map((ratio, i) => ({
    ratio,
    energyKwh: i === 2 ? null : 1000 + 100 * i,
    clippedFrac: i === 2 ? null : 0.01 * i,
    stopped: i === 2,
    now: i === 1,
    withBatteryKwh: i === 2 ? null : 990 + 100 * i,
  }));
  const { container } = render(
    <SweepChart
      dots={dots}
      marks={[{ ratio: 1.5, text: 'Stop: Cold Voc', tone: 'wall' }]}
      chosen={null}
      onChoose={choose}
      name={(i) => `size ${i}`}
      widthPx={600}
      heightPx={300}
    />,
  );
  expect(container.textContent).toContain('Stop: Cold Voc');
  fireEvent.keyDown(screen.getByRole('button', { name: 'size 2' }), { key: 'Enter' });
  expect(choose).toHaveBeenCalledWith(2);
});

test.each([
  [1, '#1f6f63'],
  [0.96, '#3f8a7b'],
  [0.3, '#f4f1ea'],
])('%d of the best has its shade', (frac, colour) => expect(shadeOf(frac)).toBe(colour));

test('the map names its best and the planes on it with their loss', () => {
  const { container } = render(
    <AngleMapChart
      tiltsDeg={[0, 5]}
      azimuthsDeg={[0, 10]}
      values={[
        [100, 100],
        [90, 110],
      ]}
      best={{ tiltDeg: 5, azimuthDeg: 10 }}
      planes={[{ name: 'South roof', tiltDeg: 5, azimuthDeg: 0, lossFrac: 0.182 }]}
      widthPx={400}
      heightPx={200}
    />,
  );
  expect(screen.getByRole('group', { name: 'Best at 5° of tilt facing 10°' })).toBeTruthy();
  expect(container.textContent).toContain('South roof −18.2 %');
});

test('a split marks its best angle, a day lays its curves over each other', () => {
  render(
    <SplitChart
      dots={[0, 45, 90].map((splitDeg, i) => ({ splitDeg, yearKwh: 1000 - i, clippedFrac: 0.1 }))}
      bestDeg={0}
      widthPx={300}
      heightPx={150}
    />,
  );
  expect(
    screen.getByRole('group', { name: 'Most energy with each half turned by 0°' }),
  ).toBeTruthy();
  const kw = Array.from({ length: 24 }, (_, h) => (h === 12 ? 5 : 0));
  render(
    <DayLines
      label="a day"
      lines={[{ title: 'east and west', kw, colour: 'red', dash: '' }]}
      widthPx={300}
      heightPx={120}
    />,
  );
  expect(screen.getByText('east and west')).toBeTruthy();
});
