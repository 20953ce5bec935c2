/** What a plane's layouts are asked: alternatives, their proofs, exactly so many, why no more. */
import { keepPreviousData, queryOptions } from '@tanstack/react-query';
import { api, foundOf, type Schemas, unwrap } from './client';
import { type OptionAt, pathOf } from './queries';

export type Alternative = Schemas['Alternative'];

const PLANE = '/api/jobs/{job_id}/revisions/{revision}/options/{option_id}/planes/{plane_id}';
const PROOF_EVERY_MS = 400;

const planePath = (at: OptionAt, planeId: string) => ({
  path: { ...pathOf(at).path, plane_id: planeId },
});

const kept = {
  placeholderData: keepPreviousData,
  staleTime: Number.POSITIVE_INFINITY,
} as const;

export const alternativesQuery = (at: OptionAt, planeId: string) =>
  queryOptions<Alternative[]>({
    queryKey: ['alternatives', at, planeId],
    queryFn: ({ signal }) =>
      foundOf(api.GET(`${PLANE}/alternatives`, { params: planePath(at, planeId), signal })),
    ...kept,
  });

/** Asked again while the proof goes on; asking begins it. */
export const proofQuery = (at: OptionAt, planeId: string) =>
  queryOptions<Schemas['ProofAnswer']>({
    queryKey: ['proof', at, planeId],
    queryFn: () => unwrap(api.POST(`${PLANE}/proof`, { params: planePath(at, planeId) })),
    refetchInterval: (query) => (query.state.data?.running ? PROOF_EVERY_MS : false),
    staleTime: Number.POSITIVE_INFINITY,
  });

export const cancelProof = (at: OptionAt, planeId: string) =>
  unwrap(api.DELETE(`${PLANE}/proof`, { params: planePath(at, planeId) }));

export const squeezeQuery = (at: OptionAt, planeId: string) =>
  queryOptions<Alternative[]>({
    queryKey: ['squeeze', at, planeId],
    queryFn: ({ signal }) =>
      foundOf(api.GET(`${PLANE}/squeeze`, { params: planePath(at, planeId), signal })),
    ...kept,
  });

export const exactlyQuery = (at: OptionAt, planeId: string, modules: number, giveUp: number) =>
  queryOptions<Alternative[]>({
    queryKey: ['exactly', at, planeId, modules, giveUp],
    queryFn: ({ signal }) =>
      foundOf(
        api.GET(`${PLANE}/exactly`, {
          params: { ...planePath(at, planeId), query: { modules, give_up_frac: giveUp } },
          signal,
        }),
      ),
    retry: false,
    ...kept,
  });

export const oneMoreQuery = (at: OptionAt, planeId: string) =>
  queryOptions<Schemas['OneMore']>({
    queryKey: ['one-more', at, planeId],
    queryFn: ({ signal }) =>
      foundOf(api.GET(`${PLANE}/one-more`, { params: planePath(at, planeId), signal })),
    ...kept,
  });

/** What rows take of each other's light, and the gap at which they take a typed share. */
export const rowsLightQuery = (at: OptionAt, planeId: string, mostLoss = '') =>
  queryOptions<Schemas['RowsLight']>({
    queryKey: ['rows-light', at, planeId, mostLoss],
    queryFn: ({ signal }) =>
      foundOf(
        api.GET(`${PLANE}/rows-light`, {
          params: { ...planePath(at, planeId), query: { most_loss: mostLoss } },
          signal,
        }),
      ),
    ...kept,
  });

/** Where brackets can sit under the modules of a metal roof or a carport. */
export const bracketsQuery = (at: OptionAt, planeId: string) =>
  queryOptions<Schemas['SeatReport']>({
    queryKey: ['brackets', at, planeId],
    queryFn: ({ signal }) =>
      foundOf(api.GET(`${PLANE}/brackets`, { params: planePath(at, planeId), signal })),
    ...kept,
    retry: false,
  });

export const seasonsQuery = (at: OptionAt, planeId: string) =>
  queryOptions<Schemas['SeasonalTilt']>({
    queryKey: ['seasons', at, planeId],
    queryFn: ({ signal }) =>
      foundOf(api.GET(`${PLANE}/seasons`, { params: planePath(at, planeId), signal })),
    ...kept,
  });

export const calendarAddress = (at: OptionAt, planeId: string) =>
  `/api/jobs/${at.jobId}/revisions/${at.revision}/options/${at.optionId}/planes/${planeId}/seasons.ics`;
