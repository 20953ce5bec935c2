/** What loading is asked: the house, options side by side, the bench, the sweep, what to buy. */
import {
  answerOf,
  OPTION,
  type OptionAt,
  pathOf,
  REVISION,
  revisionOf,
  studyOf,
} from '@/api/asking';
import { api, foundOf, type Schemas, sendFile, unwrap } from '@/api/client';

export const houseQuery = (at: OptionAt) =>
  answerOf<Schemas['HouseReport']>(['house', at], (signal) =>
    foundOf(api.GET(`${OPTION}/house`, { params: pathOf(at), signal })),
  );

/** What optimizers and microinverters would give; `helped` null lets the darkest be taken. */
export const ownPointQuery = (at: OptionAt, helped: readonly string[] | null) =>
  answerOf<Schemas['OwnPointReport']>(['own-point', at, helped], (signal) =>
    foundOf(
      api.GET(`${OPTION}/own-point`, {
        params: { ...pathOf(at), query: helped ? { helped: helped.join(',') } : {} },
        signal,
      }),
    ),
  );

export const shadeBandQuery = (at: OptionAt) =>
  answerOf<Schemas['ShadeBand']>(['shade-band', at], (signal) =>
    foundOf(api.GET(`${OPTION}/shade-band`, { params: pathOf(at), signal })),
  );

/** `picked`: options such as `a`, and earlier designs such as `a@12`; the first is the base. */
export const comparedQuery = (at: OptionAt, picked: readonly string[]) =>
  answerOf<Schemas['OptionsCompared']>(['compared', at.jobId, at.revision, picked], (signal) =>
    foundOf(
      api.GET(`${REVISION}/compared`, {
        params: { ...revisionOf(at), query: { picked: picked.join(',') } },
        signal,
      }),
    ),
  );

export const earlierQuery = (at: OptionAt) =>
  answerOf<Schemas['Earlier'][]>(['earlier', at.jobId, at.revision], (signal) =>
    foundOf(api.GET(`${REVISION}/earlier`, { params: revisionOf(at), signal })),
  );

export const benchQuery = (at: OptionAt) =>
  answerOf<Schemas['BenchView']>(['bench', at], (signal) =>
    foundOf(api.GET(`${OPTION}/bench`, { params: pathOf(at), signal })),
  );

/** `by`: what the year is weighed by, as `year`, `winter` or hours such as `16-21`. */
export const sweepQuery = (at: OptionAt, by: string) =>
  studyOf<Schemas['SweepReport']>(['loading-sweep', at, by], (signal) =>
    unwrap(
      api.GET(`${OPTION}/loading-sweep`, { params: { ...pathOf(at), query: { by } }, signal }),
    ),
  );

export const whatToBuyQuery = (at: OptionAt) =>
  studyOf<Schemas['WhatToBuy']>(['what-to-buy', at], (signal) =>
    unwrap(api.GET(`${OPTION}/what-to-buy`, { params: pathOf(at), signal })),
  );

export const whichQuery = (at: OptionAt) =>
  studyOf<Schemas['Which']>(['which', at], (signal) =>
    unwrap(api.GET(`${OPTION}/which`, { params: pathOf(at), signal })),
  );

const sendTo = <T>(at: OptionAt, what: string, file: File) =>
  sendFile<T>(`/api/jobs/${at.jobId}/revisions/${at.revision}/${what}`, file);

export const sendLoad = (at: OptionAt, file: File) =>
  sendTo<Schemas['LoadFileTold']>(at, 'load', file);

export const sendPower = (at: OptionAt, file: File) =>
  sendTo<Schemas['PowerFileRef']>(at, 'power', file);
