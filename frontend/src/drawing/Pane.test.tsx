import { act, fireEvent, render, screen } from '@testing-library/react';
import { beforeEach, expect, test, vi } from 'vitest';
import { toScreen } from './camera';
import { Pane } from './Pane';

const POINTS = [
  { xM: 0, yM: 0 },
  { xM: 10, yM: 5 },
];
const PAD = { left: 20, right: 20, top: 20, bottom: 20 };

beforeEach(() => {
  // jsdom lays nothing out: a pane of 440 by 240.
  vi.stubGlobal(
    'ResizeObserver',
    class {
      private readonly seen: () => void;
      constructor(seen: () => void) {
        this.seen = seen;
      }
      observe(element: HTMLElement) {
        Object.defineProperty(element, 'clientWidth', { value: 440, configurable: true });
        Object.defineProperty(element, 'clientHeight', { value: 240, configurable: true });
        this.seen();
      }
      disconnect() {}
    },
  );
  SVGElement.prototype.setPointerCapture = () => undefined;
});

function drawn(onSpot = vi.fn()) {
  render(
    <Pane points={POINTS} padPx={PAD} label="a plan" zoomable onSpot={onSpot}>
      {({ camera }) => {
        const { xPx, yPx } = toScreen(camera, { xM: 5, yM: 2.5 });
        return <circle data-testid="middle" cx={xPx} cy={yPx} r="3" />;
      }}
    </Pane>,
  );
  return { plan: screen.getByRole('group', { name: 'a plan' }), onSpot };
}

const middle = () => {
  const circle = screen.getByTestId('middle');
  return [Number(circle.getAttribute('cx')), Number(circle.getAttribute('cy'))];
};

test('a click on the ground is told in metres', () => {
  const { plan, onSpot } = drawn();
  expect(middle()).toEqual([220, 120]);
  fireEvent.pointerDown(plan, { clientX: 220, clientY: 120 });
  fireEvent.pointerUp(plan, { clientX: 220, clientY: 120 });
  expect(onSpot).toHaveBeenCalledExactlyOnceWith({ xM: 5, yM: 2.5 });
});

test('a click on a thing is the thing’s own', () => {
  const { onSpot } = drawn();
  fireEvent.pointerDown(screen.getByTestId('middle'), { clientX: 220, clientY: 120 });
  fireEvent.pointerUp(screen.getByTestId('middle'), { clientX: 220, clientY: 120 });
  expect(onSpot).not.toHaveBeenCalled();
});

test('dragging the ground moves the drawing, and is no click', () => {
  const { plan, onSpot } = drawn();
  fireEvent.pointerDown(plan, { clientX: 100, clientY: 100 });
  fireEvent.pointerMove(plan, { clientX: 130, clientY: 90 });
  // While the hand moves only the sheet is shifted; it is drawn anew when let go.
  expect(middle()).toEqual([220, 120]);
  fireEvent.pointerUp(plan, { clientX: 130, clientY: 90 });
  expect(middle()).toEqual([250, 110]);
  expect(onSpot).not.toHaveBeenCalled();
});

test('the wheel draws closer about the hand, the buttons about the middle, All shows all', () => {
  vi.useFakeTimers();
  const { plan } = drawn();
  fireEvent.wheel(plan, { deltaY: -1, clientX: 220, clientY: 120 });
  act(() => void vi.advanceTimersByTime(200));
  expect(middle()[0]).toBeCloseTo(220);
  fireEvent.click(screen.getByRole('button', { name: 'Closer' }));
  expect(middle()[0]).toBeCloseTo(220);
  fireEvent.wheel(plan, { deltaY: -1, clientX: 0, clientY: 0 });
  act(() => void vi.advanceTimersByTime(200));
  expect(middle()[0]).toBeCloseTo(220 * 1.15);
  fireEvent.click(screen.getByRole('button', { name: 'Show all' }));
  expect(middle()).toEqual([220, 120]);
  vi.useRealTimers();
});
