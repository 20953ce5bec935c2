/** A datasheet typed column by column; a refusal names the figure and stays beside what was typed. */
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Schemas } from '@/api/client';
import { columnsQuery, type SheetKind, typeSheet } from '@/api/shelfQueries';
import { Button } from '@/ui/Button';

interface SheetFormProps {
  kind: SheetKind;
  onKept: (sheet: Schemas['SheetView']) => void;
}

export function SheetForm({ kind, onKept }: SheetFormProps) {
  const { data: columns } = useQuery(columnsQuery(kind));
  const [texts, setTexts] = useState<Record<string, string>>({});
  const [refusal, setRefusal] = useState('');
  const keep = () =>
    typeSheet(kind, texts).then(onKept, (error: Error) => setRefusal(error.message));
  return (
    <aside
      aria-label="A datasheet of your own"
      className="flex w-[400px] shrink-0 flex-col border-l border-rule bg-sheet"
    >
      <form
        className="flex min-h-0 grow flex-col"
        onSubmit={(event) => {
          event.preventDefault();
          void keep();
        }}
      >
        <div className="min-h-0 grow overflow-y-auto p-3">
          <p className="mb-2 text-xs text-ink-2">
            As the datasheet prints it. Left empty, a figure is not known and checks that need it
            say so. A name that is there already is renewed.
          </p>
          {(columns ?? []).map((column) => (
            <label key={column.name} className="flex items-start gap-2 py-0.5 text-sm">
              <span className="w-[186px] shrink-0 pt-1">
                {column.label}
                {column.needed && <span className="text-copper"> *</span>}
              </span>
              <span className="grow">
                <span className="flex items-center gap-1.5">
                  <input
                    value={texts[column.name] ?? ''}
                    onChange={(event) => setTexts({ ...texts, [column.name]: event.target.value })}
                    className="h-[26px] w-full min-w-0 rounded-md border border-field bg-sheet px-1.5 font-figure"
                  />
                  <span className="w-[36px] shrink-0 text-xs text-ink-2">{column.unit}</span>
                </span>
                {column.hint && <span className="text-xs text-ink-2">{column.hint}</span>}
              </span>
            </label>
          ))}
        </div>
        <div className="shrink-0 border-t border-rule p-3">
          {refusal && (
            <p role="alert" className="mb-2 text-sm text-stop">
              {refusal}
            </p>
          )}
          <Button type="submit" weight="main">
            Put it on the shelf
          </Button>
        </div>
      </form>
    </aside>
  );
}
