import { fireEvent, render, screen } from '@testing-library/react';
import { expect, test, vi } from 'vitest';
import { SortHead } from './SortHead';

test('the head of a column says how it is sorted and sorts when pressed', () => {
  const sort = vi.fn();
  render(
    <table>
      <thead>
        <tr>
          <SortHead title="kW DC" sorted="descending" onSort={sort} />
        </tr>
      </thead>
    </table>,
  );
  const head = screen.getByRole('columnheader', { name: 'kW DC ↓' });
  expect(head.getAttribute('aria-sort')).toBe('descending');
  fireEvent.click(screen.getByRole('button'));
  expect(sort).toHaveBeenCalledOnce();
});
