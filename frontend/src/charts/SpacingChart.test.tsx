import { render, screen } from '@testing-library/react';
import { expect, test } from 'vitest';
import { SpacingChart } from './SpacingChart';

const chart = (hereM: number, solsticeM: number) =>
  render(
    <SpacingChart
      dots={[0.5, 2, 4].map((gapM) => ({ gapM, lossFrac: 0.02 / gapM }))}
      hereM={hereM}
      solsticeM={solsticeM}
      name={(m) => `${m.toFixed(1)} m`}
      widthPx={460}
      heightPx={100}
    />,
  );

test('rows away from what the shortest day asks have two named lines', () => {
  chart(0.5, 3.4);
  expect(
    screen.getByRole('group', { name: 'Rows 0.5 m apart, the shortest day asks for 3.4 m' }),
  ).toBeTruthy();
  const day = Number(screen.getByText('shortest day').getAttribute('x'));
  expect(day).toBeGreaterThan(Number(screen.getByText('now').getAttribute('x')));
});

test('rows as far apart as the shortest day asks share one name', () => {
  chart(3.4, 3.4);
  expect(screen.getByText('shortest day')).toBeTruthy();
  expect(screen.queryByText('now')).toBeNull();
});
