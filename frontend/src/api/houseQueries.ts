/** A house on its own sun: its load and battery, options side by side, the measured-curve bench. */
import { keepPreviousData, queryOptions } from '@tanstack/react-query';
import { api, foundOf, type Schemas, sendFile } from './client';
import { type OptionAt, pathOf } from './queries';

const OPTION = '/api/jobs/{job_id}/revisions/{revision}/options/{option_id}';
const REVISION = '/api/jobs/{job_id}/revisions/{revision}';

const revisionOf = (at: OptionAt) => ({ path: { job_id: at.jobId, revision: at.revision } });

export const houseQuery = (at: OptionAt) =>
  queryOptions<Schemas['HouseReport']>({
    queryKey: ['house', at],
    queryFn: ({ signal }) => foundOf(api.GET(`${OPTION}/house`, { params: pathOf(at), signal })),
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
  });

/** `picked`: options such as `a`, and earlier designs such as `a@12`; the first is the base. */
export const comparedQuery = (at: OptionAt, picked: readonly string[]) =>
  queryOptions<Schemas['OptionsCompared']>({
    queryKey: ['compared', at.jobId, at.revision, picked],
    queryFn: ({ signal }) =>
      foundOf(
        api.GET(`${REVISION}/compared`, {
          params: { ...revisionOf(at), query: { picked: picked.join(',') } },
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
  });

export const earlierQuery = (at: OptionAt) =>
  queryOptions<Schemas['Earlier'][]>({
    queryKey: ['earlier', at.jobId, at.revision],
    queryFn: ({ signal }) =>
      foundOf(api.GET(`${REVISION}/earlier`, { params: revisionOf(at), signal })),
    staleTime: Number.POSITIVE_INFINITY,
  });

export const benchQuery = (at: OptionAt) =>
  queryOptions<Schemas['BenchView']>({
    queryKey: ['bench', at],
    queryFn: ({ signal }) => foundOf(api.GET(`${OPTION}/bench`, { params: pathOf(at), signal })),
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
  });

const sendTo = <T>(at: OptionAt, what: string, file: File) =>
  sendFile<T>(`/api/jobs/${at.jobId}/revisions/${at.revision}/${what}`, file);

export const sendLoad = (at: OptionAt, file: File) =>
  sendTo<Schemas['LoadFileTold']>(at, 'load', file);

export const sendPower = (at: OptionAt, file: File) =>
  sendTo<Schemas['PowerFileRef']>(at, 'power', file);
