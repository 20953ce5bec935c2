import { fireEvent, render, screen } from '@testing-library/react';
import { beforeEach, expect, test, vi } from 'vitest';
import { type KeyMap, setSingleKeys, useKeys } from './useKeys';

function Page({ map }: { map: KeyMap }) {
  useKeys(map);
  return <input aria-label="field" />;
}

beforeEach(() => setSingleKeys(true));

test('a single letter does its deed, but not while somebody types', () => {
  const v = vi.fn();
  render(<Page map={{ v }} />);
  fireEvent.keyDown(document.body, { key: 'v' });
  expect(v).toHaveBeenCalledTimes(1);
  fireEvent.keyDown(screen.getByLabelText('field'), { key: 'v' });
  expect(v).toHaveBeenCalledTimes(1);
});

test('single letters can be switched off; keys with a command stay', () => {
  const v = vi.fn();
  const undo = vi.fn();
  render(<Page map={{ v, 'mod+z': undo }} />);
  setSingleKeys(false);
  fireEvent.keyDown(document.body, { key: 'v' });
  fireEvent.keyDown(document.body, { key: 'z', ctrlKey: true });
  expect(v).not.toHaveBeenCalled();
  expect(undo).toHaveBeenCalledTimes(1);
});

test.each([
  [{ key: 'z', metaKey: true }, 'mod+z'],
  [{ key: 'Z', ctrlKey: true, shiftKey: true }, 'mod+shift+z'],
  [{ key: 'ArrowLeft', shiftKey: true }, 'shift+ArrowLeft'],
  [{ key: '?', shiftKey: true }, '?'],
])('%o is called %s', (event, name) => {
  const deed = vi.fn();
  render(<Page map={{ [name]: deed }} />);
  fireEvent.keyDown(document.body, event);
  expect(deed).toHaveBeenCalledTimes(1);
});
