/** The shelf of equipment: browse, filter, sort, compare; own datasheets by form and by file. */
import { useQueryClient } from '@tanstack/react-query';
import { startTransition, useOptimistic, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import type { Schemas } from '@/api/client';
import { OWN_EQUIPMENT_ADDRESS, type SheetKind, takeEquipment } from '@/api/shelfQueries';
import { Button } from '@/ui/Button';
import { FilePick } from '@/ui/FilePick';
import { useNotify } from '@/ui/Notices';
import { SheetForm } from './SheetForm';
import { SheetsCompared } from './SheetsCompared';
import { ShelfTable } from './ShelfTable';
import { TakenIn } from './TakenIn';

const KINDS: { id: SheetKind; title: string }[] = [
  { id: 'module', title: 'Modules' },
  { id: 'inverter', title: 'Inverters' },
  { id: 'optimizer', title: 'Optimizers' },
  { id: 'microinverter', title: 'Microinverters' },
  { id: 'mounting', title: 'Mounting' },
];
// More do not stand side by side.
const MOST_COMPARED = 4;

export default function ShelfPage() {
  // What is looked at stands in the address: it can be shared and gone back from.
  const [asked, setAsked] = useSearchParams();
  const kind = KINDS.find(({ id }) => id === asked.get('kind'))?.id ?? 'module';
  // A tick stands at once, whenever the address follows.
  const [chosen, tick] = useOptimistic<readonly string[]>(asked.getAll('sheet'));
  const setChosen = (ids: readonly string[]) =>
    startTransition(() => {
      tick(ids);
      setAsked([['kind', kind], ...ids.map((id): [string, string] => ['sheet', id])], {
        replace: true,
      });
    });
  const [typing, setTyping] = useState(false);
  const [taken, setTaken] = useState<{ file: string; told: Schemas['TakenIn'] } | null>(null);
  const client = useQueryClient();
  const notify = useNotify();
  const changed = (goneId = '') => {
    // What is gone is not asked for again.
    client.removeQueries({ queryKey: ['equipment', kind, 'sheet', goneId] });
    void client.invalidateQueries({
      predicate: ({ queryKey }) => queryKey[0] === 'equipment' && queryKey[3] !== goneId,
    });
    void client.invalidateQueries({ queryKey: ['shelf'] });
  };
  const take = (file: File) =>
    takeEquipment(file).then(
      (told) => {
        setTaken({ file: file.name, told });
        changed();
      },
      (error: Error) => notify({ text: error.message, tone: 'stop' }),
    );
  const show = (next: SheetKind) => {
    setAsked({ kind: next });
    setTyping(false);
  };
  return (
    <div className="flex h-full min-w-0 flex-col">
      <header className="flex h-[46px] shrink-0 items-center gap-3 border-b border-rule bg-sheet px-3.5">
        <Link to="/" className="text-lg font-semibold">
          Ridge Tally
        </Link>
        <span aria-hidden="true" className="text-ink-3">
          /
        </span>
        <h1 className="text-base font-medium">Shelf</h1>
        <fieldset aria-label="Kind of equipment" className="ml-2 flex gap-1.5">
          {KINDS.map(({ id, title }) => (
            <Button
              key={id}
              weight={kind === id ? 'pressed' : 'plain'}
              aria-pressed={kind === id}
              onClick={() => show(id)}
            >
              {title}
            </Button>
          ))}
        </fieldset>
        <span className="grow" />
        <Button weight={typing ? 'pressed' : 'plain'} onClick={() => setTyping(!typing)}>
          Type one in
        </Button>
        <FilePick
          label="From a file (CSV, JSON)"
          accept=".csv,.tsv,.txt,.json,text/csv,application/json"
          onFile={(file) => void take(file)}
        />
        <a className="text-sm underline" href={OWN_EQUIPMENT_ADDRESS} download>
          Own as JSON
        </a>
      </header>
      <main className="flex min-h-0 grow">
        <div className="flex min-w-0 grow flex-col">
          {taken && <TakenIn {...taken} onClose={() => setTaken(null)} />}
          <ShelfTable
            key={kind}
            kind={kind}
            chosen={chosen}
            onRemoved={() => changed()}
            onChoose={(id) =>
              setChosen(
                chosen.includes(id)
                  ? chosen.filter((c) => c !== id)
                  : [...chosen, id].slice(-MOST_COMPARED),
              )
            }
          />
        </div>
        {typing ? (
          <SheetForm
            key={kind}
            kind={kind}
            onKept={(sheet) => {
              changed();
              setTyping(false);
              setChosen([sheet.id]);
            }}
          />
        ) : (
          chosen.length > 0 && (
            <SheetsCompared
              kind={kind}
              ids={chosen}
              onRemoved={(id) => {
                setChosen(chosen.filter((c) => c !== id));
                changed(id);
              }}
            />
          )
        )}
      </main>
    </div>
  );
}
