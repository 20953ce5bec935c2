/** The bills, row by row: cells commit as they are left, problems stand beside their row. */
import { type ClipboardEvent, type KeyboardEvent, useRef } from 'react';
import type { Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { Button } from '@/ui/Button';
import { BillCell } from './BillCell';
import { Understood } from './Understood';

type Field = Schemas['BillField'];
const COLUMNS: { field: Field; title: string; width: number }[] = [
  { field: 'first_day', title: 'From', width: 92 },
  { field: 'last_day', title: 'To', width: 92 },
  { field: 'energy', title: 'kWh', width: 66 },
  { field: 'cost', title: 'Money', width: 74 },
];
const MOST = 12;

export function BillsTable() {
  const { job, brief, edit, act } = useJob();
  const table = useRef<HTMLTableElement>(null);
  const rows = job.brief.bills;
  const readings = new Map(brief.bills.map((bill) => [bill.id, bill]));
  const shown: (Schemas['BillRow'] | null)[] = rows.length < MOST ? [...rows, null] : rows;

  const walk = (row: number, field: Field) =>
    table.current?.querySelector<HTMLInputElement>(`[data-cell="${row} ${field}"]`)?.focus();
  const keys = (event: KeyboardEvent, row: number, field: Field) => {
    const way = { ArrowDown: 1, Enter: 1, ArrowUp: -1 }[event.key];
    if (way) {
      event.preventDefault();
      walk(row + way, field);
    }
  };
  const paste = (event: ClipboardEvent, row: number, field: Field) => {
    const text = event.clipboardData.getData('text').trimEnd();
    if (!text.includes('\n') && !text.includes('\t')) return;
    event.preventDefault();
    if (text.includes('\t')) {
      act({ kind: 'add-bills', text, file: '' });
      return;
    }
    const values = text.split(/\r?\n/);
    act({ kind: 'fill-bill-column', bill_id: shown[row]?.id ?? null, field, values });
  };

  return (
    <table ref={table} className="min-w-0 grow text-sm" aria-label="Bills">
      <thead>
        <tr className="text-left text-xs text-ink-2">
          <th scope="col" className="w-6 font-medium">
            <span className="sr-only">Row</span>
          </th>
          {COLUMNS.map(({ field, title }) => (
            <th key={field} scope="col" className="pb-0.5 font-medium">
              {title}
            </th>
          ))}
          <th scope="col" className="min-w-[150px] pl-2 font-medium">
            As understood
          </th>
        </tr>
      </thead>
      <tbody>
        {shown.map((row, index) => {
          const reading = row ? readings.get(row.id) : undefined;
          return (
            // By place, not by id: the empty row keeps the cursor when it becomes a bill.
            // biome-ignore lint/suspicious/noArrayIndexKey: see above
            <tr key={index} className="align-top">
              <td className="w-6 pt-[3px] pr-1.5 text-right text-xs text-ink-2">{index + 1}</td>
              {COLUMNS.map(({ field, title, width }) => (
                <td key={field} className="pr-1 pb-[3px]">
                  <BillCell
                    name={`${index + 1} ${field}`}
                    label={`${title}, bill ${index + 1}`}
                    value={row?.[field] ?? ''}
                    width={width}
                    figures={field === 'energy' || field === 'cost'}
                    faulty={reading?.problem_field === field}
                    commit={(typed) =>
                      edit({ kind: 'set-bill', bill_id: row?.id ?? null, field, typed, row: index })
                    }
                    onKeyDown={(event) => keys(event, index + 1, field)}
                    onPaste={(event) => paste(event, index, field)}
                  />
                </td>
              ))}
              <td className="w-full pl-2">
                {row && (
                  <span className="flex items-start justify-between gap-1">
                    <span>
                      <Understood reading={reading} />
                      {/swapped|kWh column/.test(reading?.problem ?? '') && (
                        <Button
                          className="mt-0.5"
                          onClick={() => act({ kind: 'swap-bill-columns', bill_id: row.id })}
                        >
                          Swap kWh and money
                        </Button>
                      )}
                    </span>
                    <button
                      type="button"
                      aria-label={`Remove bill ${index + 1}`}
                      title="Remove this bill"
                      className="min-h-6 min-w-6 shrink-0 rounded-sm text-ink-2 hover:bg-paper"
                      onClick={() => act({ kind: 'remove-bills', bill_ids: [row.id] })}
                    >
                      ×
                    </button>
                  </span>
                )}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
