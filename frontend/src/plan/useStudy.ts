/** A study of the option as far as it is worked out; the one before stays until this has a result. */
import { type UseQueryOptions, useQuery } from '@tanstack/react-query';
import { useRef } from 'react';
import type { Running } from '@/api/client';

export interface StudyInView<T> {
  found: T | null;
  /** What is found is of the design before. */
  behind: boolean;
  running: boolean;
  error: Error | null;
}

/** `shows`: whether what stands so far is worth showing; anything is without it. */
export function useStudy<T>(
  asked: UseQueryOptions<Running<T>>,
  shows: (found: T) => boolean = () => true,
): StudyInView<T> {
  const { data, error } = useQuery(asked);
  const before = useRef<T | null>(null);
  const fresh = data?.found && shows(data.found) ? data.found : null;
  if (fresh) before.current = fresh;
  return {
    found: fresh ?? before.current,
    behind: fresh === null && before.current !== null,
    running: data?.running ?? true,
    error: error ?? (data?.problem ? new Error(data.problem) : null),
  };
}
