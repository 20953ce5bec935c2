import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { render, screen } from '@testing-library/react';
import { expect, test } from 'vitest';
import { studyOf } from '@/api/asking';
import { useStudy } from './useStudy';

interface Found {
  sizes: number;
}

/** Answers that are given when the test says so. */
function answers() {
  const given = new Map<number, (sizes: number | null) => void>();
  const ask = (revision: number) =>
    studyOf<Found>(['sizes', revision], async () => {
      const sizes = await new Promise<number | null>((give) => given.set(revision, give));
      return { found: sizes === null ? null : { sizes }, running: false, problem: '' } as never;
    });
  return { ask, give: (revision: number, sizes: number | null) => given.get(revision)?.(sizes) };
}

function Sizes({ asked }: { asked: ReturnType<ReturnType<typeof answers>['ask']> }) {
  const { found, behind } = useStudy(asked);
  return <p>{found ? `${found.sizes} sizes${behind ? ', of before' : ''}` : 'nothing yet'}</p>;
}

test('what was found stays, marked, until the newer study has found something', async () => {
  const client = new QueryClient();
  const { ask, give } = answers();
  const shown = (revision: number) => (
    <QueryClientProvider client={client}>
      <Sizes asked={ask(revision)} />
    </QueryClientProvider>
  );
  const { rerender } = render(shown(1));
  expect(screen.getByText('nothing yet')).toBeTruthy();
  give(1, 4);
  await screen.findByText('4 sizes');
  rerender(shown(2));
  expect(screen.getByText('4 sizes, of before')).toBeTruthy();
  // Begun, but nothing is found yet.
  give(2, null);
  await client.getQueryCache().find({ queryKey: ['sizes', 2] })?.promise;
  expect(screen.getByText('4 sizes, of before')).toBeTruthy();
  rerender(shown(3));
  give(3, 7);
  await screen.findByText('7 sizes');
});
