/** What strings are asked: every legal plan, and every inverter's best. */
import { keepPreviousData, queryOptions } from '@tanstack/react-query';
import { api, foundOf, type Running, type Schemas, unwrap } from './client';
import { type OptionAt, pathOf } from './queries';

export type Objective = Schemas['Objective'];

const OPTION = '/api/jobs/{job_id}/revisions/{revision}/options/{option_id}';
const FOUND_EVERY_MS = 300;

export const stringPlansQuery = (at: OptionAt, first: Objective | null) =>
  queryOptions<Schemas['PlansReport']>({
    queryKey: ['string-plans', at, first],
    queryFn: ({ signal }) =>
      foundOf(
        api.GET(`${OPTION}/string-plans`, {
          params: { ...pathOf(at), query: first ? { first } : {} },
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
  });

export const trackerLossesQuery = (at: OptionAt) =>
  queryOptions<Schemas['TrackerLosses'][]>({
    queryKey: ['tracker-losses', at],
    queryFn: ({ signal }) =>
      foundOf(api.GET(`${OPTION}/tracker-losses`, { params: pathOf(at), signal })),
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
  });

/** Whether a plan typed in words is legal. */
export const askPlan = (at: OptionAt, typed: string) =>
  foundOf(api.GET(`${OPTION}/plan-verdict`, { params: { ...pathOf(at), query: { typed } } }));

/** Asked again while inverters are looked at; asking begins it. */
export const inverterPlansQuery = (at: OptionAt) =>
  queryOptions<Running<Schemas['InverterPlans']>>({
    queryKey: ['inverter-plans', at],
    queryFn: ({ signal }) =>
      unwrap(api.GET(`${OPTION}/inverter-plans`, { params: pathOf(at), signal })),
    refetchInterval: (query) => (query.state.data?.running ? FOUND_EVERY_MS : false),
    staleTime: Number.POSITIVE_INFINITY,
  });
