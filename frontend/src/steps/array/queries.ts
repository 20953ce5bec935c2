/** What a plane's layouts are asked: alternatives, their proofs, exactly so many, why no more. */
import { answerOf, fileOf, OPTION, type OptionAt, pathOf, workOn } from '@/api/asking';
import { api, foundOf, type Schemas, unwrap } from '@/api/client';

export type Alternative = Schemas['Alternative'];
export type Arrangement = Schemas['Arrangement'];

const PLANE = `${OPTION}/planes/{plane_id}` as const;

const planePath = (at: OptionAt, planeId: string) => ({
  path: { ...pathOf(at).path, plane_id: planeId },
});

export const alternativesQuery = (at: OptionAt, planeId: string) =>
  answerOf<Alternative[]>(['alternatives', at, planeId], (signal) =>
    foundOf(api.GET(`${PLANE}/alternatives`, { params: planePath(at, planeId), signal })),
  );

export const proofQuery = (at: OptionAt, planeId: string) =>
  workOn<Schemas['ProofAnswer']>(['proof', at, planeId], () =>
    unwrap(api.POST(`${PLANE}/proof`, { params: planePath(at, planeId) })),
  );

export const cancelProof = (at: OptionAt, planeId: string) =>
  unwrap(api.DELETE(`${PLANE}/proof`, { params: planePath(at, planeId) }));

export const squeezeQuery = (at: OptionAt, planeId: string) =>
  answerOf<Alternative[]>(['squeeze', at, planeId], (signal) =>
    foundOf(api.GET(`${PLANE}/squeeze`, { params: planePath(at, planeId), signal })),
  );

export const exactlyQuery = (
  at: OptionAt,
  planeId: string,
  modules: number,
  arrangement: Arrangement,
) => ({
  ...answerOf<Alternative[]>(['exactly', at, planeId, modules, arrangement], (signal) =>
    foundOf(
      api.GET(`${PLANE}/exactly`, {
        params: { ...planePath(at, planeId), query: { modules, arrangement } },
        signal,
      }),
    ),
  ),
  retry: false,
});

export const oneMoreQuery = (at: OptionAt, planeId: string) =>
  answerOf<Schemas['OneMore']>(['one-more', at, planeId], (signal) =>
    foundOf(api.GET(`${PLANE}/one-more`, { params: planePath(at, planeId), signal })),
  );

/** What rows take of each other's light, and the gap at which they take a typed share. */
export const rowsLightQuery = (at: OptionAt, planeId: string, mostLoss = '') =>
  answerOf<Schemas['RowsLight']>(['rows-light', at, planeId, mostLoss], (signal) =>
    foundOf(
      api.GET(`${PLANE}/rows-light`, {
        params: { ...planePath(at, planeId), query: { most_loss: mostLoss } },
        signal,
      }),
    ),
  );

/** Where brackets can sit under the modules of a metal roof or a carport. */
export const bracketsQuery = (at: OptionAt, planeId: string) => ({
  ...answerOf<Schemas['SeatReport']>(['brackets', at, planeId], (signal) =>
    foundOf(api.GET(`${PLANE}/brackets`, { params: planePath(at, planeId), signal })),
  ),
  retry: false,
});

export const seasonsQuery = (at: OptionAt, planeId: string) =>
  answerOf<Schemas['SeasonalTilt']>(['seasons', at, planeId], (signal) =>
    foundOf(api.GET(`${PLANE}/seasons`, { params: planePath(at, planeId), signal })),
  );

export const calendarAddress = (at: OptionAt, planeId: string) =>
  fileOf(at, `planes/${planeId}/seasons.ics`);
