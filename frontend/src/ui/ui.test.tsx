import { fireEvent, render, screen, waitFor } from '@testing-library/react';
import { expect, test, vi } from 'vitest';
import { FilePick, withText } from './FilePick';
import { Toggle } from './Toggle';

test('a box is ticked by its words and says the new state', () => {
  const onChange = vi.fn();
  render(
    <Toggle on={false} onChange={onChange}>
      All black
    </Toggle>,
  );
  fireEvent.click(screen.getByLabelText('All black'));
  expect(onChange).toHaveBeenCalledExactlyOnceWith(true);
});

test('a picked file is handed over as text with its name, and can be picked again', async () => {
  const onText = vi.fn();
  render(<FilePick label="From a CSV file" accept=".csv" onFile={withText(onText)} />);
  const input = screen.getByLabelText<HTMLInputElement>('From a CSV file, file');
  const file = new File(['from,to,kWh'], 'bills.csv', { type: 'text/csv' });
  Object.defineProperty(file, 'text', { value: () => Promise.resolve('from,to,kWh') });
  fireEvent.change(input, { target: { files: [file] } });
  await waitFor(() => expect(onText).toHaveBeenCalledExactlyOnceWith('from,to,kWh', 'bills.csv'));
  expect(input.value).toBe('');
});
