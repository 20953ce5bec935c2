/** What strings are asked: every legal plan, every inverter's best, ways out and ways to the grid. */
import { answerOf, OPTION, type OptionAt, pathOf, studyOf } from '@/api/asking';
import { api, foundOf, type Schemas, unwrap } from '@/api/client';

export type Objective = Schemas['Objective'];

export const stringPlansQuery = (at: OptionAt, first: Objective | null) =>
  answerOf<Schemas['PlansReport']>(['string-plans', at, first], (signal) =>
    foundOf(
      api.GET(`${OPTION}/string-plans`, {
        params: { ...pathOf(at), query: first ? { first } : {} },
        signal,
      }),
    ),
  );

export const trackerLossesQuery = (at: OptionAt) =>
  answerOf<Schemas['TrackerLosses'][]>(['tracker-losses', at], (signal) =>
    foundOf(api.GET(`${OPTION}/tracker-losses`, { params: pathOf(at), signal })),
  );

/** Whether a plan typed in words is legal. */
export const askPlan = (at: OptionAt, typed: string) =>
  foundOf(api.GET(`${OPTION}/plan-verdict`, { params: { ...pathOf(at), query: { typed } } }));

export const inverterPlansQuery = (at: OptionAt) =>
  studyOf<Schemas['InverterPlans']>(['inverter-plans', at], (signal) =>
    unwrap(api.GET(`${OPTION}/inverter-plans`, { params: pathOf(at), signal })),
  );

export const remediesQuery = (at: OptionAt) =>
  studyOf<Schemas['RemediesReport']>(['remedies', at], (signal) =>
    unwrap(api.GET(`${OPTION}/remedies`, { params: pathOf(at), signal })),
  );

export const sharedTrackersQuery = (at: OptionAt) =>
  answerOf<Schemas['SharedTracker'][]>(['shared-trackers', at], (signal) =>
    foundOf(api.GET(`${OPTION}/shared-trackers`, { params: pathOf(at), signal })),
  );

export const comparisonQuery = (at: OptionAt) =>
  studyOf<Schemas['Comparison']>(['comparison', at], (signal) =>
    unwrap(api.GET(`${OPTION}/comparison`, { params: pathOf(at), signal })),
  );

export const pairingQuery = (at: OptionAt) =>
  studyOf<Schemas['PairingStudy']>(['pairing', at], (signal) =>
    unwrap(api.GET(`${OPTION}/pairing`, { params: pathOf(at), signal })),
  );

export const moduleChoiceQuery = (at: OptionAt) =>
  studyOf<Schemas['ModuleChoice']>(['module-choice', at], (signal) =>
    unwrap(api.GET(`${OPTION}/module-choice`, { params: pathOf(at), signal })),
  );
