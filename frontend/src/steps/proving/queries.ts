/** What Proving asks the server: a moment, commissioning, the search, practice, simulated meters. */
import { answerOf, answerTo, fileOf, OPTION, type OptionAt, pathOf } from '@/api/asking';
import { api, foundOf, type Schemas } from '@/api/client';

export type MomentAsked = Schemas['MomentRequest'];

export const momentQuery = (at: OptionAt, body: MomentAsked) => ({
  ...answerTo<Schemas['MomentView']>(['option', at, 'moment', body], (signal) =>
    foundOf(api.POST(`${OPTION}/moment`, { params: pathOf(at), body, signal })),
  ),
  placeholderData: (before: Schemas['MomentView'] | undefined) => before,
});

export const commissioningQuery = (at: OptionAt) =>
  answerOf<Schemas['Commissioning']>(['option', at, 'commissioning'], (signal) =>
    foundOf(api.GET(`${OPTION}/commissioning`, { params: pathOf(at), signal })),
  );

export const commissioningFile = (at: OptionAt) => fileOf(at, 'commissioning.csv');

export const recordsQuery = (at: OptionAt) =>
  answerOf<Schemas['RecordsView']>(['option', at, 'records'], (signal) =>
    foundOf(api.GET(`${OPTION}/records`, { params: pathOf(at), signal })),
  );

export const serialsFile = (at: OptionAt) => fileOf(at, 'serials.csv');

export const huntQuery = (at: OptionAt) =>
  answerOf<Schemas['HuntView']>(['option', at, 'hunt'], (signal) =>
    foundOf(api.GET(`${OPTION}/hunt`, { params: pathOf(at), signal })),
  );

export const yardQuery = (at: OptionAt) =>
  answerOf<Schemas['YardView'] | null>(['option', at, 'yard'], (signal) =>
    foundOf(api.GET(`${OPTION}/yard`, { params: pathOf(at), signal })),
  );

/** What simulated instruments show; nothing is recorded by asking. */
export const metersShow = (at: OptionAt, wanted: Schemas['MeterRequest'][]) =>
  foundOf(api.POST(`${OPTION}/meters`, { params: pathOf(at), body: { wanted } }));
