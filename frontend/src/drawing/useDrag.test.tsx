import { fireEvent, render, screen, waitFor } from '@testing-library/react';
import { beforeEach, expect, test, vi } from 'vitest';
import { nudgeOf } from './nudge';
import { useDrag } from './useDrag';

beforeEach(() => {
  Element.prototype.setPointerCapture = () => undefined;
});

function Thing({ onDrop }: { onDrop: (id: string, dx: number, dy: number) => Promise<unknown> }) {
  const drag = useDrag(onDrop);
  return (
    <svg aria-label="plan">
      <g data-testid="thing" {...drag('tree')} />
    </svg>
  );
}

test('a thing follows the hand and is handed over once, where it was let go', async () => {
  const onDrop = vi.fn(() => Promise.resolve());
  render(<Thing onDrop={onDrop} />);
  const thing = screen.getByTestId('thing');
  fireEvent.pointerDown(thing, { clientX: 10, clientY: 10 });
  fireEvent.pointerMove(thing, { clientX: 20, clientY: 14 });
  fireEvent.pointerMove(thing, { clientX: 40, clientY: 18 });
  expect(thing.style.transform).toBe('translate(30px, 8px)');
  fireEvent.pointerUp(thing, { clientX: 40, clientY: 18 });
  expect(onDrop).toHaveBeenCalledExactlyOnceWith('tree', 30, 8);
  await waitFor(() => expect(thing.style.transform).toBe(''));
});

test('a shaking hand moves nothing, and a refused move comes back', async () => {
  const onDrop = vi.fn(() => Promise.reject(new Error('refused')));
  render(<Thing onDrop={onDrop} />);
  const thing = screen.getByTestId('thing');
  fireEvent.pointerDown(thing, { clientX: 10, clientY: 10 });
  fireEvent.pointerUp(thing, { clientX: 12, clientY: 11 });
  expect(onDrop).not.toHaveBeenCalled();
  fireEvent.pointerDown(thing, { clientX: 10, clientY: 10 });
  fireEvent.pointerMove(thing, { clientX: 60, clientY: 10 });
  fireEvent.pointerUp(thing, { clientX: 60, clientY: 10 });
  await waitFor(() => expect(thing.style.transform).toBe(''));
});

test.each([
  ['ArrowLeft', false, -0.1, 0],
  ['ArrowUp', false, 0, 0.1],
  ['ArrowDown', true, 0, -0.01],
])('%s, with Shift %s, nudges', (key, shiftKey, dxM, dyM) => {
  const event = { key, shiftKey, preventDefault: vi.fn() };
  const nudge = nudgeOf(event as never);
  expect(nudge?.dxM).toBeCloseTo(dxM);
  expect(nudge?.dyM).toBeCloseTo(dyM);
  expect(event.preventDefault).toHaveBeenCalled();
});

test('another key is left alone', () => {
  expect(nudgeOf({ key: 'a', preventDefault: vi.fn() } as never)).toBeNull();
});
