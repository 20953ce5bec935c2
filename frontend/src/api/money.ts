/** An option's price, bills, years and worth: asked by the step and by the Tally beside every step. */
import { OPTION, type OptionAt, pathOf, studyOf } from './asking';
import { api, type Schemas, unwrap } from './client';

export const moneyQuery = (at: OptionAt) =>
  studyOf<Schemas['MoneyView']>(['money', at], (signal) =>
    unwrap(api.GET(`${OPTION}/money`, { params: pathOf(at), signal })),
  );
