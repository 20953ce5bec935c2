import { fireEvent, render, screen } from '@testing-library/react';
import { expect, test, vi } from 'vitest';
import { ClosureLine } from './ClosureLine';
import { LitLines } from './LitLines';
import { SunPlanChart } from './SunPlanChart';
import { WeatherMonths } from './WeatherMonths';

test('a day of light is one line a substring, and a click on it takes the time', () => {
  const take = vi.fn();
  render(
    <LitLines
      label="Module 1"
      minutes={[480, 720, 960]}
      parts={[
        [1, 1, 0],
        [1, 0.5, 0],
        [1, 0, 0],
      ]}
      minute={720}
      widthPx={300}
      heightPx={100}
      onMinute={take}
    />,
  );
  const chart = screen.getByRole('group', { name: 'Module 1' });
  expect(chart.querySelectorAll('path')).toHaveLength(3);
  fireEvent.click(chart, { clientX: 162 });
  // Half way between 34 and 290 pixels lies noon.
  expect(take).toHaveBeenCalledWith(720);
});

test('from above the sun of the south stands below the middle, east to the right', () => {
  const spot = (minute: number, azimuth: number) => ({
    minute,
    azimuth_deg: azimuth,
    elevation_deg: 45,
  });
  render(
    <SunPlanChart
      days={[{ day: 79, spots: [spot(540, 90), spot(720, 180)] }]}
      ownDay={null}
      blocked={[{ azimuth_deg: 90, from_deg: 0, to_deg: 20, name: 'Poplar', kind: 'tree' }]}
      planeAzimuthDeg={180}
      now={{ azimuthDeg: 180, elevationDeg: 45 }}
      widthPx={400}
      heightPx={400}
    />,
  );
  const sun = [...document.querySelectorAll('circle')].at(-1);
  expect(Number(sun?.getAttribute('cx'))).toBeCloseTo(200);
  expect(Number(sun?.getAttribute('cy'))).toBeCloseTo(200 + 174 / 2);
  expect(screen.getByText('Poplar').tagName).toBe('title');
});

test('months carry their light and their mean air', () => {
  const months = Array.from({ length: 12 }, (_, m) => ({
    ghi_kwh_per_m2: 100 + m,
    dhi_kwh_per_m2: 40,
    max_degc: 20,
    mean_degc: 10 + m,
    min_degc: 0,
  }));
  render(<WeatherMonths months={months} widthPx={800} heightPx={150} />);
  expect(screen.getByText('111')).toBeTruthy();
  expect(screen.getByText('21')).toBeTruthy();
});

test('the closure names where a file closes best', () => {
  render(
    <ClosureLine
      minutes={[-30, 0, 30]}
      rms={[1.5, 20, 44]}
      chosen={-30}
      widthPx={170}
      heightPx={110}
    />,
  );
  expect(screen.getByRole('group', { name: /part by 1.5 W\/m² at −30 minutes/ })).toBeTruthy();
});
