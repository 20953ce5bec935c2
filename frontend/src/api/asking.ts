/** How the server is asked: of what, what becomes of the old answer, and how work is followed. */
import { keepPreviousData, queryOptions } from '@tanstack/react-query';
import { api, type Running, type Schemas, unwrap } from './client';

/** An option of a job at a revision. */
export interface OptionAt {
  jobId: string;
  revision: number;
  optionId: string;
}

export const REVISION = '/api/jobs/{job_id}/revisions/{revision}';
export const OPTION = `${REVISION}/options/{option_id}` as const;
const AGAIN_EVERY_MS = 300;

export const revisionOf = (at: OptionAt) => ({
  path: { job_id: at.jobId, revision: at.revision },
});

export const pathOf = (at: OptionAt) => ({
  path: { ...revisionOf(at).path, option_id: at.optionId },
});

/** Where a file of an option is fetched from. */
export const fileOf = (at: OptionAt, file: string, query?: Record<string, string>) =>
  `/api/jobs/${at.jobId}/revisions/${at.revision}/options/${at.optionId}/${file}${query ? `?${new URLSearchParams(query)}` : ''}`;

type Ask<T> = (signal: AbortSignal) => Promise<T>;

/** An answer that holds for its revision; the one before stays, dimmed, until it is there. */
export const answerOf = <T>(queryKey: readonly unknown[], ask: Ask<T>) =>
  queryOptions<T>({
    queryKey,
    queryFn: ({ signal }) => ask(signal),
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
  });

/** An answer to what a person typed: no old one stands for it, and a refusal is told at once. */
export const answerTo = <T>(queryKey: readonly unknown[], ask: Ask<T>) =>
  queryOptions<T>({
    queryKey,
    queryFn: ({ signal }) => ask(signal),
    staleTime: Number.POSITIVE_INFINITY,
    retry: false,
  });

/** Work that goes on beside the requests: asking begins it, and it is asked again until it ends. */
export const workOn = <T extends { running: boolean } = never>(
  queryKey: readonly unknown[],
  ask: Ask<T>,
) =>
  queryOptions<T>({
    queryKey,
    queryFn: ({ signal }) => ask(signal),
    refetchInterval: (query) => (query.state.data?.running ? AGAIN_EVERY_MS : false),
    staleTime: Number.POSITIVE_INFINITY,
  });

/** A study of an option, as far as it is worked out. */
export const studyOf = <T>(queryKey: readonly unknown[], ask: Ask<Running<T>>) =>
  workOn<Running<T>>(queryKey, ask);

/** Stop a study; what it has found stays. */
export const stopStudy = (at: OptionAt, study: Schemas['Study']) =>
  unwrap(
    api.DELETE(`${OPTION}/studies/{study}`, {
      params: { path: { ...pathOf(at).path, study } },
    }),
  );
