/** The shelf of equipment: looked through, typed onto, filled from files. */
import { keepPreviousData, queryOptions } from '@tanstack/react-query';
import { api, type Schemas, sendFile, unwrap } from './client';

export type SheetKind = Schemas['SheetKind'];

export interface ShelfAsked {
  kind: SheetKind;
  words: string;
  sort: string;
  down: boolean;
  least: number | null;
  most: number | null;
  start: number;
}

export const shelfPageQuery = ({ kind, least, most, ...asked }: ShelfAsked) =>
  queryOptions<Schemas['ShelfPage']>({
    queryKey: ['equipment', kind, asked, least, most],
    queryFn: ({ signal }) =>
      unwrap(
        api.GET('/api/equipment/{kind}', {
          params: {
            path: { kind },
            query: {
              ...asked,
              ...(least === null ? {} : { least }),
              ...(most === null ? {} : { most }),
            },
          },
          signal,
        }),
      ).then((answer) => answer.page),
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
  });

export const sheetQuery = (kind: SheetKind, sheetId: string) =>
  queryOptions<Schemas['SheetView']>({
    queryKey: ['equipment', kind, 'sheet', sheetId],
    queryFn: ({ signal }) =>
      unwrap(
        api.GET('/api/equipment/{kind}/sheets/{sheet_id}', {
          params: { path: { kind, sheet_id: sheetId } },
          signal,
        }),
      ).then((answer) => answer.sheet),
    staleTime: Number.POSITIVE_INFINITY,
  });

export const columnsQuery = (kind: SheetKind) =>
  queryOptions<Schemas['Column'][]>({
    queryKey: ['equipment', kind, 'columns'],
    queryFn: ({ signal }) =>
      unwrap(api.GET('/api/equipment/{kind}/columns', { params: { path: { kind } }, signal })).then(
        (answer) => answer.columns,
      ),
    staleTime: Number.POSITIVE_INFINITY,
  });

export const typeSheet = (kind: SheetKind, texts: Record<string, string>) =>
  unwrap(
    api.POST('/api/equipment/{kind}/sheets', { params: { path: { kind } }, body: { texts } }),
  ).then((answer) => answer.sheet);

export const removeSheet = (kind: SheetKind, sheetId: string) =>
  unwrap(
    api.DELETE('/api/equipment/{kind}/sheets/{sheet_id}', {
      params: { path: { kind, sheet_id: sheetId } },
    }),
  );

export const takeEquipment = (file: File) =>
  sendFile<Schemas['TakenInAnswer']>('/api/equipment/file', file).then((answer) => answer.taken);

export const emptyTableAddress = (kind: SheetKind) => `/api/equipment/${kind}/table.csv`;
export const OWN_EQUIPMENT_ADDRESS = '/api/equipment/file';
