import { fireEvent, render, screen, waitFor } from '@testing-library/react';
import { expect, test, vi } from 'vitest';
import { BillCell } from './BillCell';

function cell(commit: (typed: string) => Promise<unknown>) {
  const onKeyDown = vi.fn();
  render(
    <BillCell
      name="1 energy"
      label="kWh, bill 1"
      value="842"
      width={66}
      figures
      faulty={false}
      commit={commit}
      onKeyDown={onKeyDown}
      onPaste={vi.fn()}
    />,
  );
  return { input: screen.getByLabelText<HTMLInputElement>('kWh, bill 1'), onKeyDown };
}

test('leaving a changed cell commits it once, an unchanged one does not', async () => {
  const commit = vi.fn().mockResolvedValue(null);
  const { input } = cell(commit);
  fireEvent.blur(input);
  fireEvent.change(input, { target: { value: 'twelve' } });
  fireEvent.blur(input);
  await waitFor(() => expect(commit).toHaveBeenCalledExactlyOnceWith('twelve'));
});

test('what was refused stays in the cell', async () => {
  const commit = vi.fn().mockRejectedValue(new Error('no room'));
  const { input } = cell(commit);
  fireEvent.change(input, { target: { value: '900' } });
  fireEvent.blur(input);
  await waitFor(() => expect(commit).toHaveBeenCalled());
  expect(input.value).toBe('900');
});

test('Escape restores; Enter is handed to the table', () => {
  const { input, onKeyDown } = cell(vi.fn());
  fireEvent.change(input, { target: { value: '900' } });
  fireEvent.keyDown(input, { key: 'Escape' });
  expect(input.value).toBe('842');
  fireEvent.keyDown(input, { key: 'Enter' });
  expect(onKeyDown).toHaveBeenCalledTimes(1);
});
