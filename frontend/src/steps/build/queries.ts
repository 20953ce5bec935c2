/** What Build asks: racking, circuits and the one-line diagram. */
import { answerOf, OPTION, type OptionAt, pathOf, studyOf } from '@/api/asking';
import { api, type Schemas, unwrap } from '@/api/client';

export const rackingQuery = (at: OptionAt) =>
  studyOf<Schemas['RackingView']>(['racking', at], (signal) =>
    unwrap(api.GET(`${OPTION}/racking`, { params: pathOf(at), signal })),
  );

export const circuitsQuery = (at: OptionAt) =>
  studyOf<Schemas['CircuitsView']>(['circuits', at], (signal) =>
    unwrap(api.GET(`${OPTION}/circuits`, { params: pathOf(at), signal })),
  );

export const oneLineQuery = (at: OptionAt) =>
  answerOf(['one-line', at], (signal) =>
    unwrap(api.GET(`${OPTION}/one-line`, { params: pathOf(at), signal })),
  );

/** Where a sheet of the diagram is fetched as a file. */
export const oneLineFile = ({ jobId, revision, optionId }: OptionAt, sheet: number, kind: string) =>
  `/api/jobs/${jobId}/revisions/${revision}/options/${optionId}/one-line/${sheet}.${kind}`;
