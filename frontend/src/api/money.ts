/** An option's price, bills, years and worth: asked by the step and by the Tally beside every step. */
import { OPTION, type OptionAt, pathOf, studyOf } from './asking';
import { api, type Schemas, unwrap } from './client';

export const moneyQuery = (at: OptionAt) =>
  studyOf<Schemas['MoneyView']>(['money', at], (signal) =>
    unwrap(api.GET(`${OPTION}/money`, { params: pathOf(at), signal })),
  );

export const movesQuery = (at: OptionAt) =>
  studyOf<Schemas['NextMoves']>(['next-moves', at], (signal) =>
    unwrap(api.GET(`${OPTION}/next-moves`, { params: pathOf(at), signal })),
  );

export const sureQuery = (at: OptionAt) =>
  studyOf<Schemas['HowSure']>(['how-sure', at], (signal) =>
    unwrap(api.GET(`${OPTION}/how-sure`, { params: pathOf(at), signal })),
  );

export const laterQuery = (at: OptionAt) =>
  studyOf<Schemas['NowOrLater']>(['now-or-later', at], (signal) =>
    unwrap(api.GET(`${OPTION}/now-or-later`, { params: pathOf(at), signal })),
  );
