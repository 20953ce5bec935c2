import { render } from '@testing-library/react';
import { expect, test } from 'vitest';
import { NeedChart } from './NeedChart';

const months = (kwh: number) => Array.from({ length: 12 }, () => kwh);

function chart(change: Partial<Parameters<typeof NeedChart>[0]>) {
  const { container } = render(
    <NeedChart
      billedKwh={months(0)}
      guessedKwh={months(0)}
      toComeKwh={months(0)}
      arrayKwh={[]}
      arrayTitle="28 modules"
      widthPx={440}
      heightPx={240}
      {...change}
    />,
  );
  return container;
}

test('bars stand on each other: billed, guessed, to come', () => {
  const drawn = chart({ billedKwh: months(300), guessedKwh: months(100), toComeKwh: months(50) });
  const heights = [...drawn.querySelectorAll('g > g > rect, g[transform] > rect')].map((r) =>
    Number(r.getAttribute('height')),
  );
  expect(heights).toHaveLength(36);
  expect(heights[0]).toBeCloseTo((heights[1] ?? 0) * 3, 6);
  expect(heights[1]).toBeCloseTo((heights[2] ?? 0) * 2, 6);
});

test('the array is one level a month, and left out when nothing is known of it', () => {
  const path = (c: HTMLElement) => c.querySelector('path.stroke-copper')?.getAttribute('d') ?? '';
  expect(path(chart({ arrayKwh: months(500) })).match(/H/g)).toHaveLength(12);
  expect(path(chart({ arrayKwh: [] }))).toBe('');
});
