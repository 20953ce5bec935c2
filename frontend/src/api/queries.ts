/** Key, fetch and type of each question to the server, in one place. */
import { keepPreviousData, queryOptions } from '@tanstack/react-query';
import {
  api,
  foundOf,
  type Running,
  type Schemas,
  type TargetReport,
  unwrap,
  type YearReport,
} from './client';

export interface OptionAt {
  jobId: string;
  revision: number;
  optionId: string;
}

export const pathOf = (at: OptionAt) => ({
  path: { job_id: at.jobId, revision: at.revision, option_id: at.optionId },
});

export const jobsQuery = queryOptions({
  queryKey: ['jobs'],
  queryFn: ({ signal }) => unwrap(api.GET('/api/jobs', { signal })).then((answer) => answer.jobs),
});

export const jobKey = (jobId: string) => ['job', jobId] as const;

export const jobQuery = (jobId: string) =>
  queryOptions({
    queryKey: jobKey(jobId),
    queryFn: ({ signal }) =>
      foundOf(
        api.GET('/api/jobs/{job_id}', { params: { path: { job_id: jobId }, query: {} }, signal }),
      ),
  });

export const shelfQuery = queryOptions({
  queryKey: ['shelf'],
  queryFn: ({ signal }) => unwrap(api.GET('/api/shelf', { signal })),
  staleTime: Number.POSITIVE_INFINITY,
});

export const yearQuery = (at: OptionAt) =>
  queryOptions<YearReport>({
    queryKey: ['year', at],
    queryFn: ({ signal }) =>
      foundOf(
        api.GET('/api/jobs/{job_id}/revisions/{revision}/options/{option_id}/year', {
          params: pathOf(at),
          signal,
        }),
      ),
    // The old answer stays, dimmed, until the new revision is answered.
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
  });

const FINE_EVERY_MS = 400;

/** The year by quarters of an hour; asking begins it, and it is asked again until it is there. */
export const fineYearQuery = (at: OptionAt) =>
  queryOptions<Running<Schemas['FineStep']>>({
    queryKey: ['fine-year', at],
    queryFn: ({ signal }) =>
      unwrap(
        api.GET('/api/jobs/{job_id}/revisions/{revision}/options/{option_id}/year/fine', {
          params: pathOf(at),
          signal,
        }),
      ),
    refetchInterval: (query) => (query.state.data?.running ? FINE_EVERY_MS : false),
    staleTime: Number.POSITIVE_INFINITY,
  });

/** What optimizers and microinverters would give; `helped` null lets the darkest be taken. */
export const ownPointQuery = (at: OptionAt, helped: readonly string[] | null) =>
  queryOptions<Schemas['OwnPointReport']>({
    queryKey: ['own-point', at, helped],
    queryFn: ({ signal }) =>
      foundOf(
        api.GET('/api/jobs/{job_id}/revisions/{revision}/options/{option_id}/own-point', {
          params: { ...pathOf(at), query: helped ? { helped: helped.join(',') } : {} },
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
  });

export const targetQuery = (at: OptionAt) =>
  queryOptions<TargetReport>({
    queryKey: ['target', at],
    queryFn: ({ signal }) =>
      foundOf(
        api.GET('/api/jobs/{job_id}/revisions/{revision}/options/{option_id}/target', {
          params: pathOf(at),
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
  });

export const shadeBandQuery = (at: OptionAt) =>
  queryOptions<Schemas['ShadeBand']>({
    queryKey: ['shade-band', at],
    queryFn: ({ signal }) =>
      foundOf(
        api.GET('/api/jobs/{job_id}/revisions/{revision}/options/{option_id}/shade-band', {
          params: pathOf(at),
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
  });

export const placesQuery = (typed: string) =>
  queryOptions<Schemas['PlaceFound'][]>({
    queryKey: ['places', typed],
    queryFn: ({ signal }) =>
      foundOf(api.GET('/api/places', { params: { query: { typed } }, signal })),
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
    enabled: typed.trim().length > 1,
  });

export const sceneQuery = (at: OptionAt) =>
  queryOptions<Schemas['Scene']>({
    queryKey: ['scene', at.jobId, at.revision],
    queryFn: ({ signal }) =>
      foundOf(
        api.GET('/api/jobs/{job_id}/revisions/{revision}/scene', {
          params: { path: { job_id: at.jobId, revision: at.revision } },
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
  });

/** What the sheet says on paper, the year by quarters in it: asked for when that is there. */
export const sheetQuery = (at: OptionAt) =>
  queryOptions<Schemas['SheetContent']>({
    queryKey: ['option', at, 'sheet'],
    queryFn: ({ signal }) =>
      foundOf(
        api.GET('/api/jobs/{job_id}/revisions/{revision}/options/{option_id}/sheet', {
          params: pathOf(at),
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
  });

export const sheetAddress = (at: OptionAt) =>
  `/api/jobs/${at.jobId}/revisions/${at.revision}/options/${at.optionId}/sheet.pdf`;

export const briefAddress = (at: OptionAt) =>
  `/api/jobs/${at.jobId}/revisions/${at.revision}/options/${at.optionId}/brief.pdf`;

export const jobFileAddress = (jobId: string) => `/api/jobs/${jobId}/file`;

export const pictureAddress = (sha256: string) => `/api/pictures/${sha256}`;
