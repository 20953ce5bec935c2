/** A study that goes on beside the page: what stands so far, or why there is nothing yet. */
import type { UseQueryResult } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import type { Running } from '@/api/client';
import { Failed, Waiting } from '@/ui/States';

interface StudyProps<T> {
  query: UseQueryResult<Running<T>>;
  /** Whether what stands so far is worth showing; anything is without it. */
  shows?: (found: T) => boolean;
  waiting: string;
  children: (found: T, running: boolean) => ReactNode;
}

export function Study<T>({ query, shows = () => true, waiting, children }: StudyProps<T>) {
  const { data, error } = query;
  if (error) return <Failed error={error} />;
  if (data?.problem) return <Failed error={new Error(data.problem)} />;
  if (!data?.found || !shows(data.found)) return <Waiting>{waiting}</Waiting>;
  return children(data.found, data.running);
}
