/** A study that goes on beside the page: what stands so far, or why there is nothing yet. */
import type { UseQueryResult } from '@tanstack/react-query';
import type { ReactNode } from 'react';

interface StudyProps<Answer extends { running: boolean; problem: string }, Found> {
  query: UseQueryResult<Answer>;
  /** What of the answer is shown; nothing while it is not there. */
  found: (answer: Answer) => Found | null | undefined;
  waiting: string;
  children: (found: Found, running: boolean) => ReactNode;
}

export function Study<Answer extends { running: boolean; problem: string }, Found>({
  query,
  found,
  waiting,
  children,
}: StudyProps<Answer, Found>) {
  const { data, error } = query;
  const problem = error?.message ?? data?.problem;
  if (problem) return <p className="p-6 text-sm text-stop">{problem}</p>;
  const shown = data && found(data);
  if (!data || !shown)
    return (
      <p className="p-6 text-sm text-ink-2" role="status">
        {waiting}
      </p>
    );
  return children(shown, data.running);
}
