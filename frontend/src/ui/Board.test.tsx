import { fireEvent, render, screen } from '@testing-library/react';
import { beforeEach, expect, test } from 'vitest';
import { Board } from './Board';

beforeEach(() => localStorage.clear());

const shown = () => render(<Board heightPx={240}>cards</Board>);
const edge = () => screen.getByRole('separator');
const height = () => Number(edge().getAttribute('aria-valuenow'));

test('arrows draw it up and down, and it stays so the next time', () => {
  const { unmount } = shown();
  expect(height()).toBe(240);
  fireEvent.keyDown(edge(), { key: 'ArrowUp' });
  expect(height()).toBe(264);
  unmount();
  shown();
  expect(height()).toBe(264);
});

test('it closes and opens, and a drawing is always left above it', () => {
  shown();
  fireEvent.keyDown(edge(), { key: 'Enter' });
  expect(screen.queryByText('cards')).toBeNull();
  fireEvent.doubleClick(edge());
  expect(screen.getByText('cards')).toBeTruthy();
  fireEvent.keyDown(edge(), { key: 'End' });
  expect(height()).toBe(window.innerHeight - 330);
  fireEvent.keyDown(edge(), { key: 'Home' });
  expect(height()).toBe(0);
});

test('what was kept and cannot be is not taken', () => {
  localStorage.setItem('ridge-tally.board', '{"morePx":"wide"');
  shown();
  expect(height()).toBe(240);
});
