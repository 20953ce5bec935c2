/** What Proving asks the server: a moment, commissioning, the search, practice, simulated meters. */
import { answerOf, answerTo, fileOf, OPTION, type OptionAt, pathOf } from '@/api/asking';
import { api, foundOf, type Schemas, sendFile } from '@/api/client';

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

/** What a tester's own file holds of the job's strings; nothing is recorded by asking. */
export const readTester = (at: OptionAt, file: File) =>
  sendFile<Schemas['TestedRows'][]>(fileOf(at, 'commissioning/read'), file);

export const commissioningFile = (at: OptionAt) => fileOf(at, 'commissioning.csv');

export const commissioningReport = (at: OptionAt) => fileOf(at, 'commissioning.pdf');

export const recordsQuery = (at: OptionAt) =>
  answerOf<Schemas['RecordsView']>(['option', at, 'records'], (signal) =>
    foundOf(api.GET(`${OPTION}/records`, { params: pathOf(at), signal })),
  );

export const serialsFile = (at: OptionAt) => fileOf(at, 'serials.csv');
export const serialsDrawing = (at: OptionAt) => fileOf(at, 'serials.svg');

export const huntQuery = (at: OptionAt) =>
  answerOf<Schemas['HuntView']>(['option', at, 'hunt'], (signal) =>
    foundOf(api.GET(`${OPTION}/hunt`, { params: pathOf(at), signal })),
  );

export const huntFile = (at: OptionAt) => fileOf(at, 'hunt.csv');
export const huntReport = (at: OptionAt) => fileOf(at, 'hunt.pdf');

const LOG = `${OPTION}/production/{number}` as const;
const logOf = (at: OptionAt, number: number) => ({ path: { ...pathOf(at).path, number } });

export const productionQuery = (at: OptionAt, number: number) =>
  answerOf<Schemas['ProductionView']>(['option', at, 'production', number], (signal) =>
    foundOf(api.GET(LOG, { params: logOf(at, number), signal })),
  );

export const productionDayQuery = (at: OptionAt, number: number, day: string) =>
  answerOf<Schemas['DayCourse']>(['option', at, 'production', number, day], (signal) =>
    foundOf(api.GET(`${LOG}/day`, { params: { ...logOf(at, number), query: { day } }, signal })),
  );

export const productionFile = (at: OptionAt, number: number, file: string) =>
  fileOf(at, `production/${number}/${file}`);

export const sendLog = (at: OptionAt, file: File) =>
  sendFile<Schemas['ProductionFile']>(fileOf(at, 'production'), file);

/** A simulated gateway's log, kept on the server; the edit that follows gives it to the job. */
export const askGateway = (at: OptionAt, number: number) =>
  foundOf(api.POST(`${OPTION}/gateway`, { params: pathOf(at), body: { number } }));

export const yardQuery = (at: OptionAt) =>
  answerOf<Schemas['YardView'] | null>(['option', at, 'yard'], (signal) =>
    foundOf(api.GET(`${OPTION}/yard`, { params: pathOf(at), signal })),
  );

/** What simulated instruments show; nothing is recorded by asking. */
export const metersShow = (at: OptionAt, wanted: Schemas['MeterRequest'][]) =>
  foundOf(api.POST(`${OPTION}/meters`, { params: pathOf(at), body: { wanted } }));
