/** What the sun does to an option: shade on its modules, and what trimming gives back. */
import { keepPreviousData, queryOptions } from '@tanstack/react-query';
import { api, type Schemas, unwrap } from './client';
import { type OptionAt, pathOf } from './queries';
import { useCatchingUp } from './useYear';

export type ShadeReport = Schemas['ShadeReport'];

const OPTION = '/api/jobs/{job_id}/revisions/{revision}/options/{option_id}';

export const shadeQuery = (at: OptionAt) =>
  queryOptions<ShadeReport>({
    queryKey: ['shade', at],
    queryFn: ({ signal }) =>
      unwrap(api.GET(`${OPTION}/shade`, { params: pathOf(at), signal })).then((a) => a.shade),
    // The old answer stays, dimmed, until the new revision is answered.
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
  });

export const trimmedQuery = (at: OptionAt, shadeId: string, typed: string) =>
  queryOptions<Schemas['Trimmed']>({
    queryKey: ['trimmed', at, shadeId, typed],
    queryFn: ({ signal }) =>
      unwrap(
        api.GET(`${OPTION}/trimmed`, {
          params: { ...pathOf(at), query: { shade_id: shadeId, typed } },
          signal,
        }),
      ).then((a) => a.trimmed),
    staleTime: Number.POSITIVE_INFINITY,
    retry: false,
  });

/** The shade of an option, asked for when edits pause. */
export const useShade = (at: OptionAt, enabled: boolean) =>
  useCatchingUp<ShadeReport>(at, shadeQuery, enabled);

export const sunPathsQuery = (at: OptionAt, planeId: string, moduleId: string) =>
  queryOptions<Schemas['SunPaths']>({
    queryKey: ['sun-paths', at, planeId, moduleId],
    queryFn: ({ signal }) =>
      unwrap(
        api.GET(`${OPTION}/planes/{plane_id}/sun-paths`, {
          params: {
            path: { ...pathOf(at).path, plane_id: planeId },
            query: { module_id: moduleId },
          },
          signal,
        }),
      ).then((a) => a.paths),
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
  });
