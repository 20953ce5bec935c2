import { fireEvent, render, screen, waitFor } from '@testing-library/react';
import { expect, test, vi } from 'vitest';
import { TypedField } from './TypedField';

function shown(commit: (typed: string) => Promise<unknown>) {
  render(<TypedField label="Eave" value="12.19" commit={commit} echo={(t) => `read ${t}`} />);
  return screen.getByLabelText<HTMLInputElement>('Eave');
}

const type = (field: HTMLInputElement, text: string) =>
  fireEvent.change(field, { target: { value: text } });

test('Enter commits what was typed and the echo says what was understood', async () => {
  const commit = vi.fn().mockResolvedValue(null);
  const field = shown(commit);
  type(field, '12.5');
  expect(screen.getByRole('status').textContent).toBe('read 12.5');
  fireEvent.keyDown(field, { key: 'Enter' });
  await waitFor(() => expect(screen.queryByRole('status')).toBeNull());
  expect(commit).toHaveBeenCalledExactlyOnceWith('12.5');
});

test('leaving the field commits, leaving it unchanged does not', async () => {
  const commit = vi.fn().mockResolvedValue(null);
  const field = shown(commit);
  fireEvent.blur(field);
  expect(commit).not.toHaveBeenCalled();
  type(field, '13');
  fireEvent.blur(field);
  await waitFor(() => expect(commit).toHaveBeenCalledExactlyOnceWith('13'));
});

test('leaving after Enter does not send the same again, and what is typed meanwhile stays', async () => {
  let answer = () => {};
  const commit = vi.fn(() => new Promise<void>((done) => (answer = done)));
  const field = shown(commit);
  type(field, '13');
  fireEvent.keyDown(field, { key: 'Enter' });
  fireEvent.blur(field);
  expect(commit).toHaveBeenCalledExactlyOnceWith('13');
  type(field, '13.5');
  answer();
  await waitFor(() => expect(field.value).toBe('13.5'));
  fireEvent.blur(field);
  expect(commit).toHaveBeenLastCalledWith('13.5');
});

test('Escape restores and commits nothing', () => {
  const commit = vi.fn().mockResolvedValue(null);
  const field = shown(commit);
  type(field, '13');
  fireEvent.keyDown(field, { key: 'Escape' });
  expect(field.value).toBe('12.19');
  fireEvent.blur(field);
  expect(commit).not.toHaveBeenCalled();
});

test('a refusal stays with what was typed; only Enter tries the same text again', async () => {
  const commit = vi.fn().mockRejectedValue(new Error('“ten” was not understood'));
  const field = shown(commit);
  type(field, 'ten');
  fireEvent.keyDown(field, { key: 'Enter' });
  expect((await screen.findByRole('alert')).textContent).toBe('“ten” was not understood');
  expect(field.value).toBe('ten');
  expect(field.getAttribute('aria-invalid')).toBe('true');
  fireEvent.blur(field);
  expect(commit).toHaveBeenCalledTimes(1);
  fireEvent.keyDown(field, { key: 'Enter' });
  await waitFor(() => expect(commit).toHaveBeenCalledTimes(2));
});

test('a save that lost to another tab gives the field back to the newest value', async () => {
  const lost = Object.assign(new Error('changed elsewhere'), { code: 'save.conflict' });
  const field = shown(vi.fn().mockRejectedValue(lost));
  type(field, '13');
  fireEvent.keyDown(field, { key: 'Enter' });
  await waitFor(() => expect(field.value).toBe('12.19'));
  expect(screen.queryByRole('alert')).toBeNull();
});

test('an answer that comes while the field is entered waits until it is left', async () => {
  const commit = vi.fn().mockResolvedValue(null);
  const of = (value: string) => <TypedField label="Eave" value={value} commit={commit} />;
  const { rerender } = render(of('12.19'));
  const field = screen.getByLabelText<HTMLInputElement>('Eave');
  fireEvent.focus(field);
  rerender(of('12.29'));
  expect(field.value).toBe('12.19');
  fireEvent.blur(field);
  await waitFor(() => expect(field.value).toBe('12.29'));
  expect(commit).not.toHaveBeenCalled();
});
