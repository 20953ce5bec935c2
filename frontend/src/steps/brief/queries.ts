/** What the brief asks: places of the list. */
import { answerOf } from '@/api/asking';
import { api, foundOf, type Schemas } from '@/api/client';

export const placesQuery = (typed: string) => ({
  ...answerOf<Schemas['PlaceFound'][]>(['places', typed], (signal) =>
    foundOf(api.GET('/api/places', { params: { query: { typed } }, signal })),
  ),
  enabled: typed.trim().length > 1,
});
