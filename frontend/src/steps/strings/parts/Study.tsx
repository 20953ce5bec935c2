/** A study that goes on beside the page: what stands so far, or why there is nothing yet. */
import type { UseQueryResult } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import type { Running } from '@/api/client';

interface StudyProps<T> {
  query: UseQueryResult<Running<T>>;
  /** Whether what stands so far is worth showing; anything is without it. */
  shows?: (found: T) => boolean;
  waiting: string;
  children: (found: T, running: boolean) => ReactNode;
}

export function Study<T>({ query, shows = () => true, waiting, children }: StudyProps<T>) {
  const { data, error } = query;
  const problem = error?.message ?? data?.problem;
  if (problem) return <p className="p-6 text-sm text-stop">{problem}</p>;
  if (!data?.found || !shows(data.found))
    return (
      <p className="p-6 text-sm text-ink-2" role="status">
        {waiting}
      </p>
    );
  return children(data.found, data.running);
}
