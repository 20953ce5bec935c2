/** The shelf of equipment: looked through, typed onto, filled from files. */
import { keepPreviousData, queryOptions } from '@tanstack/react-query';
import { api, foundOf, type Schemas, sendFile, unwrap } from './client';

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
      foundOf(
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
      ),
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
  });

export const sheetQuery = (kind: SheetKind, sheetId: string) =>
  queryOptions<Schemas['SheetView']>({
    queryKey: ['equipment', kind, 'sheet', sheetId],
    queryFn: ({ signal }) =>
      foundOf(
        api.GET('/api/equipment/{kind}/sheets/{sheet_id}', {
          params: { path: { kind, sheet_id: sheetId } },
          signal,
        }),
      ),
    staleTime: Number.POSITIVE_INFINITY,
  });

export const columnsQuery = (kind: SheetKind) =>
  queryOptions<Schemas['Column'][]>({
    queryKey: ['equipment', kind, 'columns'],
    queryFn: ({ signal }) =>
      foundOf(api.GET('/api/equipment/{kind}/columns', { params: { path: { kind } }, signal })),
    staleTime: Number.POSITIVE_INFINITY,
  });

export const typeSheet = (kind: SheetKind, texts: Record<string, string>) =>
  foundOf(
    api.POST('/api/equipment/{kind}/sheets', { params: { path: { kind } }, body: { texts } }),
  );

export const removeSheet = (kind: SheetKind, sheetId: string) =>
  unwrap(
    api.DELETE('/api/equipment/{kind}/sheets/{sheet_id}', {
      params: { path: { kind, sheet_id: sheetId } },
    }),
  );

export const takeEquipment = (file: File) =>
  sendFile<Schemas['TakenIn']>('/api/equipment/file', file);

export const emptyTableAddress = (kind: SheetKind) => `/api/equipment/${kind}/table.csv`;
export const OWN_EQUIPMENT_ADDRESS = '/api/equipment/file';
