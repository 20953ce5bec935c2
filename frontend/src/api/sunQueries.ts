/** What the sun does to an option: shade on its modules, and what trimming gives back. */
import { keepPreviousData, queryOptions } from '@tanstack/react-query';
import { api, foundOf, type Schemas, sendFile } from './client';
import { type OptionAt, pathOf } from './queries';
import { useCatchingUp } from './useYear';

export type ShadeReport = Schemas['ShadeReport'];

const OPTION = '/api/jobs/{job_id}/revisions/{revision}/options/{option_id}';

export const shadeQuery = (at: OptionAt) =>
  queryOptions<ShadeReport>({
    queryKey: ['shade', at],
    queryFn: ({ signal }) => foundOf(api.GET(`${OPTION}/shade`, { params: pathOf(at), signal })),
    // The old answer stays, dimmed, until the new revision is answered.
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
  });

export const trimmedQuery = (at: OptionAt, shadeId: string, typed: string) =>
  queryOptions<Schemas['Trimmed']>({
    queryKey: ['trimmed', at, shadeId, typed],
    queryFn: ({ signal }) =>
      foundOf(
        api.GET(`${OPTION}/trimmed`, {
          params: { ...pathOf(at), query: { shade_id: shadeId, typed } },
          signal,
        }),
      ),
    staleTime: Number.POSITIVE_INFINITY,
    retry: false,
  });

/** The shade of an option, asked for when edits pause. */
export const useShade = (at: OptionAt, enabled: boolean) =>
  useCatchingUp<ShadeReport>(at, shadeQuery, enabled);

export const sunPathsQuery = (at: OptionAt, planeId: string, moduleId: string, day: number) =>
  queryOptions<Schemas['SunPaths']>({
    queryKey: ['sun-paths', at, planeId, moduleId, day],
    queryFn: ({ signal }) =>
      foundOf(
        api.GET(`${OPTION}/planes/{plane_id}/sun-paths`, {
          params: {
            path: { ...pathOf(at).path, plane_id: planeId },
            query: { module_id: moduleId, day },
          },
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
  });

export type ShadeHours = Schemas['ShadeHours'];
export type SunDay = Schemas['SunDay'];
export type WeatherReport = Schemas['WeatherReport'];

export const shadeHoursQuery = (at: OptionAt, moduleId: string) =>
  queryOptions<ShadeHours>({
    queryKey: ['shade-hours', at, moduleId],
    queryFn: ({ signal }) =>
      foundOf(
        api.GET(`${OPTION}/shade-hours`, {
          params: { ...pathOf(at), query: { module_id: moduleId } },
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
  });

export const sunDayQuery = (at: OptionAt, day: number) =>
  queryOptions<SunDay>({
    queryKey: ['sun-day', at, day],
    queryFn: ({ signal }) =>
      foundOf(api.GET(`${OPTION}/sun-day`, { params: { ...pathOf(at), query: { day } }, signal })),
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
  });

export const lossesAtMeterQuery = (at: OptionAt) =>
  queryOptions<Schemas['LossAtMeter'][]>({
    queryKey: ['losses-at-meter', at],
    queryFn: ({ signal }) =>
      foundOf(api.GET(`${OPTION}/losses-at-meter`, { params: pathOf(at), signal })),
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
  });

export const atMeterQuery = (at: OptionAt, number: number) =>
  queryOptions<Schemas['AtMeter']>({
    queryKey: ['at-meter', at, number],
    queryFn: ({ signal }) =>
      foundOf(
        api.GET(`${OPTION}/at-meter`, { params: { ...pathOf(at), query: { number } }, signal }),
      ),
    staleTime: Number.POSITIVE_INFINITY,
    retry: false,
  });

export const worstQuery = (at: OptionAt) =>
  queryOptions<Schemas['WorstModules']>({
    queryKey: ['worst-modules', at],
    queryFn: ({ signal }) =>
      foundOf(api.GET(`${OPTION}/worst-modules`, { params: pathOf(at), signal })),
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
  });

const weatherPath = (at: OptionAt) => ({ path: { job_id: at.jobId, revision: at.revision } });

export const weatherQuery = (at: OptionAt) =>
  queryOptions<WeatherReport>({
    queryKey: ['weather', at.jobId, at.revision],
    queryFn: ({ signal }) =>
      foundOf(
        api.GET('/api/jobs/{job_id}/revisions/{revision}/weather', {
          params: weatherPath(at),
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
  });

/** Sends a weather file to be read; the job keeps the weather it has until it is told otherwise. */
export async function sendWeather(at: OptionAt, file: File): Promise<Schemas['FileTold']> {
  const address = `/api/jobs/${at.jobId}/revisions/${at.revision}/weather`;
  return sendFile<Schemas['FileTold']>(address, file);
}
