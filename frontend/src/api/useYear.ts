/**
 * The year and the target of an option, asked for when edits pause: while somebody clicks
 * module after module the fast checks have the server to themselves, and the old answers
 * stay, marked.
 */
import { type UseQueryOptions, useQuery } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import type { OptionAt } from './asking';
import type { Schemas, TargetReport, YearReport } from './client';
import { shadeQuery, targetQuery, yearQuery } from './queries';

const PAUSE_MS = 250;

export function useSettled(at: OptionAt, pauseMs = PAUSE_MS): OptionAt {
  const [settled, setSettled] = useState(at);
  const { jobId, revision, optionId } = at;
  useEffect(() => {
    const timer = setTimeout(() => setSettled({ jobId, revision, optionId }), pauseMs);
    return () => clearTimeout(timer);
  }, [jobId, revision, optionId, pauseMs]);
  // Another job or option is not an edit: it is asked for at once.
  return settled.jobId === jobId && settled.optionId === optionId ? settled : at;
}

/** An answer on the option, asked for when edits pause; `behind` while it is of older ones. */
export function useCatchingUp<T>(
  at: OptionAt,
  asked: (at: OptionAt) => UseQueryOptions<T>,
  enabled = true,
) {
  const settled = useSettled(at);
  // What there was nothing to ask of is not asked once there is: the newest is, when it settles.
  const before = useRef<OptionAt | null>(null);
  if (!enabled) before.current = settled;
  const ready = settled !== before.current || settled.revision === at.revision;
  const query = useQuery({ ...asked(settled), enabled: enabled && ready });
  return { query, behind: query.isPlaceholderData || settled.revision !== at.revision };
}

export const useYear = (at: OptionAt, enabled: boolean) =>
  useCatchingUp<YearReport>(at, yearQuery, enabled);

export const useTarget = (at: OptionAt) => useCatchingUp<TargetReport>(at, targetQuery);

/** The shade of an option, asked for when edits pause. */
export const useShade = (at: OptionAt, enabled: boolean) =>
  useCatchingUp<Schemas['ShadeReport']>(at, shadeQuery, enabled);
