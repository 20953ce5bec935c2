/** What is weighed against what: ways out, ways to the grid, pairings, modules of the shelf. */
import { keepPreviousData, queryOptions } from '@tanstack/react-query';
import { api, foundOf, type Running, type Schemas, unwrap } from './client';
import { type OptionAt, pathOf } from './queries';

const OPTION = '/api/jobs/{job_id}/revisions/{revision}/options/{option_id}';
const FOUND_EVERY_MS = 300;

/** Asked again while the work goes on; asking begins it. */
const whileRunning = {
  refetchInterval: (query: { state: { data?: { running: boolean } | undefined } }) =>
    query.state.data?.running ? FOUND_EVERY_MS : (false as const),
  staleTime: Number.POSITIVE_INFINITY,
};

/** Stop a study; what it has found stays. */
export const stopStudy = (at: OptionAt, study: Schemas['Study']) =>
  unwrap(
    api.DELETE(`${OPTION}/studies/{study}`, {
      params: { path: { ...pathOf(at).path, study } },
    }),
  );

export const remediesQuery = (at: OptionAt) =>
  queryOptions<Running<Schemas['RemediesReport']>>({
    queryKey: ['remedies', at],
    queryFn: ({ signal }) => unwrap(api.GET(`${OPTION}/remedies`, { params: pathOf(at), signal })),
    ...whileRunning,
  });

export const sharedTrackersQuery = (at: OptionAt) =>
  queryOptions<Schemas['SharedTracker'][]>({
    queryKey: ['shared-trackers', at],
    queryFn: ({ signal }) =>
      foundOf(api.GET(`${OPTION}/shared-trackers`, { params: pathOf(at), signal })),
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
  });

export const comparisonQuery = (at: OptionAt) =>
  queryOptions<Running<Schemas['Comparison']>>({
    queryKey: ['comparison', at],
    queryFn: ({ signal }) =>
      unwrap(api.GET(`${OPTION}/comparison`, { params: pathOf(at), signal })),
    ...whileRunning,
  });

export const pairingQuery = (at: OptionAt) =>
  queryOptions<Running<Schemas['PairingStudy']>>({
    queryKey: ['pairing', at],
    queryFn: ({ signal }) => unwrap(api.GET(`${OPTION}/pairing`, { params: pathOf(at), signal })),
    ...whileRunning,
  });

export const moduleChoiceQuery = (at: OptionAt) =>
  queryOptions<Running<Schemas['ModuleChoice']>>({
    queryKey: ['module-choice', at],
    queryFn: ({ signal }) =>
      unwrap(api.GET(`${OPTION}/module-choice`, { params: pathOf(at), signal })),
    ...whileRunning,
  });

/** `by`: what the year is weighed by, as `year`, `winter` or hours such as `16-21`. */
export const sweepQuery = (at: OptionAt, by: string) =>
  queryOptions<Running<Schemas['SweepReport']>>({
    queryKey: ['loading-sweep', at, by],
    queryFn: ({ signal }) =>
      unwrap(
        api.GET(`${OPTION}/loading-sweep`, { params: { ...pathOf(at), query: { by } }, signal }),
      ),
    placeholderData: keepPreviousData,
    ...whileRunning,
  });

export const anglesQuery = (at: OptionAt, by: string) =>
  queryOptions<Schemas['AngleMap']>({
    queryKey: ['angles', at, by],
    queryFn: ({ signal }) =>
      foundOf(api.GET(`${OPTION}/angles`, { params: { ...pathOf(at), query: { by } }, signal })),
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
  });

export const splitQuery = (at: OptionAt, tiltDeg: number | null, ratio: number | null) =>
  queryOptions<Schemas['SplitStudy']>({
    queryKey: ['split', at, tiltDeg, ratio],
    queryFn: ({ signal }) =>
      foundOf(
        api.GET(`${OPTION}/split`, {
          params: {
            ...pathOf(at),
            query: {
              ...(tiltDeg === null ? {} : { tilt_deg: tiltDeg }),
              ...(ratio === null ? {} : { ratio }),
            },
          },
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
  });

export const whatToBuyQuery = (at: OptionAt) =>
  queryOptions<Running<Schemas['WhatToBuy']>>({
    queryKey: ['what-to-buy', at],
    queryFn: ({ signal }) =>
      unwrap(api.GET(`${OPTION}/what-to-buy`, { params: pathOf(at), signal })),
    ...whileRunning,
  });

export const whichQuery = (at: OptionAt) =>
  queryOptions<Running<Schemas['Which']>>({
    queryKey: ['which', at],
    queryFn: ({ signal }) => unwrap(api.GET(`${OPTION}/which`, { params: pathOf(at), signal })),
    ...whileRunning,
  });
