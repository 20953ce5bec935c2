/** What the sheets say on paper: asked for when the year they tell of is there. */
import { keepPreviousData } from '@tanstack/react-query';
import { answerOf, fileOf, OPTION, type OptionAt, pathOf, studyOf } from '@/api/asking';
import { api, foundOf, type Schemas, unwrap } from '@/api/client';

export const sheetQuery = (at: OptionAt) =>
  answerOf<Schemas['SheetContent']>(['option', at, 'sheet'], (signal) =>
    foundOf(api.GET(`${OPTION}/sheet`, { params: pathOf(at), signal })),
  );

export interface SetAsked {
  /** A shipped set, or one of the job's own. */
  name: string;
  paper: Schemas['SheetPaper'];
}

/** The sheets as they are drawn; those of the revision before stay until the first new one is. */
export const planSetQuery = (at: OptionAt, asked: SetAsked) => ({
  ...studyOf<Schemas['SheetListed'][]>(['option', at, 'plan-set', asked], (signal) =>
    unwrap(
      api.GET(`${OPTION}/plan-set`, { params: { ...pathOf(at), query: { ...asked } }, signal }),
    ),
  ),
  placeholderData: keepPreviousData,
});

export const setSheetQuery = (at: OptionAt, asked: SetAsked, number: string) =>
  answerOf<Schemas['SheetShown']>(['option', at, 'plan-set', asked, number], (signal) =>
    foundOf(
      api.GET(`${OPTION}/plan-set/sheet`, {
        params: { ...pathOf(at), query: { ...asked, number } },
        signal,
      }),
    ),
  );

/** Where a set, or a sheet of it, is fetched from as a file. */
export const setFile = (at: OptionAt, file: string, asked: SetAsked, number?: string) =>
  fileOf(at, file, { ...asked, ...(number ? { number } : {}) });

export const sinceQuery = (at: OptionAt) =>
  answerOf<string[]>(['option', at, 'plan-set-since'], (signal) =>
    foundOf(api.GET(`${OPTION}/plan-set/since`, { params: pathOf(at), signal })),
  );

/** Where all of an option is fetched from as one zip. */
export const allFiles = (at: OptionAt, paper: Schemas['SheetPaper']) =>
  fileOf(at, 'files.zip', { paper });

export const packetQuery = (at: OptionAt, to: Schemas['Addressee']) =>
  answerOf<Schemas['PacketView']>(['option', at, 'packet', to], (signal) =>
    foundOf(
      api.GET(`${OPTION}/packets/{to}`, {
        params: { path: { ...pathOf(at).path, to } },
        signal,
      }),
    ),
  );

export const packetFile = (at: OptionAt, to: Schemas['Addressee'], paper: Schemas['SheetPaper']) =>
  fileOf(at, `packets/${to}.pdf`, { paper });

export const workQuery = (at: OptionAt) =>
  answerOf<Schemas['WorkView']>(['option', at, 'work'], (signal) =>
    foundOf(api.GET(`${OPTION}/work`, { params: pathOf(at), signal })),
  );

export const workCalendar = (at: OptionAt) => fileOf(at, 'work.ics');
