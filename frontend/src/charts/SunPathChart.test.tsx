import { render, screen } from '@testing-library/react';
import { expect, test } from 'vitest';
import { fromMiddle, planeRiseDeg, SunPathChart } from './SunPathChart';

test.each([
  [180, 180, 0],
  [90, 180, -90],
  [350, 0, -10],
  [10, 0, 10],
  [200, 0, -160],
])('bearing %d on a chart about %d stands at %d', (azimuth, middle, expected) => {
  expect(fromMiddle(azimuth, middle)).toBe(expected);
});

test('a plane hides what lies behind it up to its own slope, and nothing before it', () => {
  expect(planeRiseDeg(0, 180, 26.57)).toBeCloseTo(26.57);
  expect(planeRiseDeg(180, 180, 26.57)).toBe(0);
  expect(planeRiseDeg(90, 180, 26.57)).toBeCloseTo(0);
  // 45° off straight behind: tan e = tan 26.57° cos 45°.
  expect(planeRiseDeg(45, 180, 26.57)).toBeCloseTo(19.48, 1);
});

const spots = (top: number) =>
  [8, 10, 12, 14, 16].map((h) => ({
    minute: h * 60,
    azimuth_deg: 180 + (h - 12) * 15,
    elevation_deg: top - Math.abs(h - 12) * 5,
  }));

test('paths are named by day, hours once, and what stands there by its name', () => {
  render(
    <SunPathChart
      days={[
        { day: 354, spots: spots(30) },
        { day: 171, spots: spots(75) },
      ]}
      blocked={[{ azimuth_deg: 200, from_deg: 0, to_deg: 20, name: 'Cottonwood', kind: 'tree' }]}
      ownDay={null}
      now={null}
      planeAzimuthDeg={180}
      planeSlopeDeg={20}
      southern={false}
      widthPx={800}
      heightPx={400}
    />,
  );
  expect(screen.getByText('21 Dec')).toBeTruthy();
  expect(screen.getByText('21 Jun')).toBeTruthy();
  expect(screen.getAllByText('12')).toHaveLength(1);
  expect(screen.getAllByText('Cottonwood').map((e) => e.tagName)).toEqual(['title', 'text']);
  expect(screen.getByText('S 180°')).toBeTruthy();
  expect(screen.queryByText('N 0°')).toBeNull();
});
