/**
 * The year and the target of an option, asked for when edits pause: while somebody clicks
 * module after module the fast checks have the server to themselves, and the old answers
 * stay, marked.  The year comes twice: by the hour at once, by the quarter after it.
 */
import { type UseQueryOptions, useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import type { OptionAt } from './asking';
import type { Schemas, TargetReport, YearReport } from './client';
import { fineYearQuery, shadeQuery, targetQuery, yearQuery } from './queries';

const PAUSE_MS = 250;
const FINE_PAUSE_MS = 1200;

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
  const query = useQuery({ ...asked(settled), enabled });
  return { query, behind: query.isPlaceholderData || settled.revision !== at.revision };
}

export const useQuickYear = (at: OptionAt, enabled: boolean) =>
  useCatchingUp<YearReport>(at, yearQuery, enabled);

/** How far the year by the quarter is, as a share; null when it is there, or will not come. */
export type FinerFrac = number | null;

/** The year as fine as it is known: by the hour until the one by the quarter is there. */
export function useYear(at: OptionAt, enabled: boolean) {
  const { query, behind } = useQuickYear(at, enabled);
  const rested = useSettled(at, FINE_PAUSE_MS);
  const ready = enabled && query.isSuccess && !behind && rested.revision === at.revision;
  const { data: fine, isError } = useQuery({ ...fineYearQuery(at), enabled: ready });
  const year = (ready && fine?.found?.year) || query.data;
  const finerFrac: FinerFrac =
    isError || year?.step_minutes === 15 || fine?.problem ? null : (fine?.found?.done_frac ?? 0);
  return { query, behind, year, finerFrac };
}

export const useTarget = (at: OptionAt) => useCatchingUp<TargetReport>(at, targetQuery);

/** The shade of an option, asked for when edits pause. */
export const useShade = (at: OptionAt, enabled: boolean) =>
  useCatchingUp<Schemas['ShadeReport']>(at, shadeQuery, enabled);
