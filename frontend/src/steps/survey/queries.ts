/** What the survey asks: the site in three dimensions. */
import { answerOf, type OptionAt, REVISION, revisionOf } from '@/api/asking';
import { api, foundOf, type Schemas } from '@/api/client';

export const sceneQuery = (at: OptionAt) =>
  answerOf<Schemas['Scene']>(['scene', at.jobId, at.revision], (signal) =>
    foundOf(api.GET(`${REVISION}/scene`, { params: revisionOf(at), signal })),
  );
