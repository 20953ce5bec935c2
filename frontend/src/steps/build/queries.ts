/** What Build asks: rails, mounts, sticks and parts, better as a better cut is found. */
import { OPTION, type OptionAt, pathOf, studyOf } from '@/api/asking';
import { api, type Schemas, unwrap } from '@/api/client';

export const rackingQuery = (at: OptionAt) =>
  studyOf<Schemas['RackingView']>(['racking', at], (signal) =>
    unwrap(api.GET(`${OPTION}/racking`, { params: pathOf(at), signal })),
  );
