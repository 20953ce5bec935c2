import { render, screen } from '@testing-library/react';
import { expect, test } from 'vitest';
import { apart } from './AngleMapChart';
import { DayLines } from './DayLines';
import { HouseDayChart } from './HouseDayChart';
import { StackedMonths } from './StackedMonths';

const flat = (kw: number) => Array.from({ length: 24 }, () => kw);

test('a house’s day draws its battery above and below nothing, and only where there is one', () => {
  const battery = flat(0).map((_, h) => (h === 10 ? -2 : h === 18 ? 3 : 0));
  const { container, rerender } = render(
    <HouseDayChart
      label="Mean day"
      loadKw={flat(1)}
      madeKw={flat(2)}
      batteryKw={battery}
      boughtKw={flat(0)}
      widthPx={500}
      heightPx={300}
    />,
  );
  const bars = () => [...container.querySelectorAll('rect')];
  const [takes, gives] = [bars()[10], bars()[18]];
  // What it takes hangs from the line that what it gives stands on.
  expect(Number(takes?.getAttribute('y'))).toBeCloseTo(
    Number(gives?.getAttribute('y')) + Number(gives?.getAttribute('height')),
  );
  expect(Number(gives?.getAttribute('height'))).toBeCloseTo(
    1.5 * Number(takes?.getAttribute('height')),
  );
  rerender(
    <HouseDayChart
      label="Mean day"
      loadKw={flat(1)}
      madeKw={flat(2)}
      batteryKw={flat(0)}
      boughtKw={flat(0)}
      widthPx={500}
      heightPx={300}
    />,
  );
  expect(bars()).toHaveLength(0);
  expect(container.textContent).not.toContain('battery gives');
});

test('months are stacked from the foot up, one stack beside the other', () => {
  const months = (kwh: number) => Array.from({ length: 12 }, () => kwh);
  const { container } = render(
    <StackedMonths
      label="Months"
      stacks={[
        [
          { title: 'own', colour: 'green', kwh: months(100) },
          { title: 'sent', colour: 'yellow', kwh: months(300) },
        ],
        [{ title: 'other', colour: 'grey', kwh: months(400) }],
      ]}
      widthPx={500}
      heightPx={200}
    />,
  );
  const [own, sent, other] = [...container.querySelectorAll('rect')].map((r) => ({
    y: Number(r.getAttribute('y')),
    height: Number(r.getAttribute('height')),
  }));
  expect(sent?.height).toBeCloseTo(3 * (own?.height ?? 0));
  expect((sent?.y ?? 0) + (sent?.height ?? 0)).toBeCloseTo(own?.y ?? 0);
  expect(other?.height).toBeCloseTo((own?.height ?? 0) + (sent?.height ?? 0));
  expect(container.textContent).toContain('Jan');
});

test('curves of other steps lie over each other, a limit across them with its figure', () => {
  const { container } = render(
    <DayLines
      label="Two steps"
      lines={[
        { title: 'hours', kw: flat(4), colour: 'black', dash: '' },
        { title: 'minutes', kw: Array.from({ length: 288 }, () => 4), colour: 'red', dash: '' },
      ]}
      limitKw={5}
      widthPx={400}
      heightPx={200}
    />,
  );
  expect(screen.getByRole('group', { name: 'Two steps' })).toBeTruthy();
  expect(container.textContent).toContain('limit 5 kW');
  const heights = [...container.querySelectorAll('path')].map(
    (p) => p.getAttribute('d')?.match(/,([\d.]+)/)?.[1],
  );
  expect(heights[0]).toBe(heights[1]);
});

test('labels that would stand on each other are moved apart', () => {
  expect(apart([100, 100, 300])).toEqual([100, 116, 300]);
});
