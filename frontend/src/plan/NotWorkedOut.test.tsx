import { fireEvent, render, screen } from '@testing-library/react';
import { MemoryRouter } from 'react-router';
import { expect, test, vi } from 'vitest';
import type { JobState } from '@/api/client';
import { NotWorkedOut } from './NotWorkedOut';

const state = {
  job_id: 'roof',
  problem: 'Option A: There is no module datasheet “gone” here.',
  undo: 'a slip',
  redo: false,
  job: { name: 'Roof', options: [{ id: 'a' }, { id: 'b' }] },
  reports: [{ option_id: 'b' }],
} as unknown as JobState;

test('a job that cannot be worked out says why and can be undone, exported and left', () => {
  const act = vi.fn();
  render(
    <MemoryRouter>
      <NotWorkedOut state={state} act={act} />
    </MemoryRouter>,
  );
  expect(screen.getByRole('alert').textContent).toContain('“gone”');
  fireEvent.click(screen.getByRole('button', { name: 'Undo: a slip' }));
  expect(act).toHaveBeenCalledWith('undo');
  expect(screen.getByRole('link', { name: 'Option B' }).getAttribute('href')).toBe(
    '/jobs/roof/b/brief',
  );
  expect(screen.queryByRole('link', { name: 'Option A' })).toBeNull();
  expect(screen.getByRole('link', { name: 'Job file' }).getAttribute('href')).toContain('roof');
});
