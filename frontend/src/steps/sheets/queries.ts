/** What the sheet says on paper: asked for when its year is there. */
import { answerOf, OPTION, type OptionAt, pathOf } from '@/api/asking';
import { api, foundOf, type Schemas } from '@/api/client';

export const sheetQuery = (at: OptionAt) =>
  answerOf<Schemas['SheetContent']>(['option', at, 'sheet'], (signal) =>
    foundOf(api.GET(`${OPTION}/sheet`, { params: pathOf(at), signal })),
  );
