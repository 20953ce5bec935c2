import { render, screen } from '@testing-library/react';
import { expect, test } from 'vitest';
import { LimitCurve } from './LimitCurve';
import { MonthBars } from './MonthBars';

test('months stand with their figures, the highest bar the tallest', () => {
  const values = [100, 200, 300, 400, 500, 600, 700, 600, 500, 400, 300, 204];
  const { container } = render(
    <MonthBars label="Energy" valuesKwh={values} widthPx={400} heightPx={150} />,
  );
  expect(screen.getByRole('group', { name: 'Energy' })).toBeTruthy();
  expect(screen.getByText('700')).toBeTruthy();
  const heights = [...container.querySelectorAll('rect')].map((bar) =>
    Number(bar.getAttribute('height')),
  );
  expect(heights.indexOf(Math.max(...heights))).toBe(6);
  expect((heights[0] ?? 0) / (heights[6] ?? 1)).toBeCloseTo(1 / 7);
  expect(screen.getAllByText('200')).toHaveLength(2); // 204 to the nearest 10
});

test('the curve says what a limit clips', () => {
  const points = [
    { limitKw: 0, clippedKwh: 1000, clippedFrac: 1 },
    { limitKw: 5, clippedKwh: 50, clippedFrac: 0.05 },
    { limitKw: 10, clippedKwh: 0, clippedFrac: 0 },
  ];
  render(<LimitCurve points={points} limitKw={5} widthPx={300} heightPx={140} />);
  expect(
    screen.getByRole('group', { name: 'At 5.00 kW 5.00 % of the year is clipped' }),
  ).toBeTruthy();
});
