/** Stickers in mounting order: scanned, typed or pasted, swapped, told where they are doubtful. */
import { useEffect, useRef, useState } from 'react';
import type { Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { useTried } from '@/ui/useTried';
import { BigButton, BigChoice, BigField } from './hand';

type Cell = Schemas['Cell'];

const CORNERS: { value: Schemas['Corner']; label: string }[] = [
  { value: 'lower-left', label: 'lower left' },
  { value: 'lower-right', label: 'lower right' },
  { value: 'upper-left', label: 'upper left' },
  { value: 'upper-right', label: 'upper right' },
];

export function SerialCard({ map }: { map: Schemas['SerialMap'] }) {
  const { job, edit, act } = useJob();
  const first = map.cells.findIndex((c) => !c.text);
  const [at, setAt] = useState<number | null>(null);
  const [typed, setTyped] = useState('');
  const [swapping, setSwapping] = useState(false);
  const { tried, problem } = useTried('It was not written.');
  const box = useRef<HTMLTextAreaElement>(null);
  const now = at ?? Math.max(0, first);
  const cell = map.cells[now];
  const name = map.carries === 'module' ? 'Modules' : 'Units';
  const write = () =>
    tried(async () => {
      const texts = typed.split(/[\n\t;]+/).filter((t) => t.trim());
      const places = map.cells.slice(now).map((c) => c.place);
      await edit({ kind: 'set-serials', carries: map.carries, places, texts });
      setTyped('');
      setAt(Math.min(map.cells.length - 1, now + texts.length));
    });
  // After each sticker the next cell waits for the reader.
  useEffect(() => {
    if (at !== null) box.current?.focus();
  }, [at]);
  const pick = (n: number) => {
    const [one, other] = [map.cells[now], map.cells[n]];
    if (swapping && one && other) {
      void act({ kind: 'swap-serials', carries: map.carries, one: one.place, other: other.place });
      setSwapping(false);
    }
    setAt(n);
  };
  return (
    <section
      aria-label={`Serial numbers, ${name}`}
      className="rounded-lg border border-rule bg-sheet p-3 text-sm"
    >
      <div className="flex flex-wrap items-end gap-2">
        <h2 className="grow font-semibold">
          {name}: {map.filled} of {map.cells.length} stickers
        </h2>
        <BigChoice
          label="begins at the"
          value={job.proving?.corner ?? 'lower-left'}
          items={CORNERS}
          onChange={(corner) =>
            void act({ kind: 'set-corner', corner: corner as Schemas['Corner'] })
          }
        />
        <Pattern carries={map.carries} pattern={map.pattern} />
      </div>
      {map.problems.map((told) => (
        <p key={told} className="text-warn">
          {told}
        </p>
      ))}
      <form
        className="mt-1 flex flex-wrap items-end gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          void write();
        }}
      >
        <label className="flex grow flex-col text-xs text-ink-2">
          {cell
            ? `${cell.plane}, row ${cell.row}, place ${cell.column}: scan, type, or paste many`
            : 'no module is laid'}
          <textarea
            ref={box}
            rows={1}
            value={typed}
            spellCheck={false}
            onChange={(event) => setTyped(event.target.value)}
            onKeyDown={(event) => {
              if (event.key === 'Enter' && !event.shiftKey) {
                event.preventDefault();
                void write();
              }
            }}
            className="h-11 rounded-md border border-field bg-sheet px-2 py-2 font-mono text-base text-ink"
          />
        </label>
        <BigButton type="submit" weight="main" disabled={!typed.trim()}>
          Stick
        </BigButton>
        <BigButton
          aria-pressed={swapping}
          disabled={!cell?.text}
          onClick={() => setSwapping(!swapping)}
        >
          {swapping ? 'with which?' : 'Swap'}
        </BigButton>
        <BigButton
          disabled={!cell?.text}
          onClick={() =>
            cell &&
            void act({
              kind: 'set-serials',
              carries: map.carries,
              places: [cell.place],
              texts: [''],
            })
          }
        >
          Clear
        </BigButton>
      </form>
      {problem && (
        <p role="alert" className="text-stop">
          {problem}
        </p>
      )}
      <Cells cells={map.cells} now={now} pick={pick} />
      {cell && cell.ports.length > 0 && cell.text && (
        <BigButton
          onClick={() =>
            void act({
              kind: 'set-unit-port',
              place: cell.place,
              port: cell.ports[0] === 'A' ? 'B' : 'A',
            })
          }
        >
          Ports, left to right: {cell.ports.join(', ')}; turn round
        </BigButton>
      )}
    </section>
  );
}

function Pattern({ carries, pattern }: { carries: Schemas['Carries']; pattern: string }) {
  const { act } = useJob();
  const [typed, setTyped] = useState<string | null>(null);
  return (
    <BigField
      label="looks like"
      value={typed ?? pattern}
      placeholder="@@####"
      onChange={setTyped}
      onLeave={() => {
        if (typed !== null && typed !== pattern)
          void act({ kind: 'set-serial-pattern', carries, pattern: typed });
        setTyped(null);
      }}
    />
  );
}

interface CellsProps {
  cells: readonly Cell[];
  now: number;
  pick: (at: number) => void;
}

/** Row by row as they are mounted, the lowest row at the bottom as on the roof. */
function Cells({ cells, now, pick }: CellsProps) {
  const planes = [...new Set(cells.map((c) => c.plane))];
  return (
    <div className="mt-2 space-y-2 overflow-x-auto">
      {planes.map((plane) => {
        const mine = cells
          .map((cell, n) => ({ cell, n }))
          .filter(({ cell }) => cell.plane === plane);
        const rows = [...new Set(mine.map(({ cell }) => cell.row))];
        return (
          <div key={plane}>
            <h3 className="text-xs text-ink-2">{plane}, in mounting order</h3>
            {rows.map((row) => (
              <div key={row} className="flex gap-1 pb-1">
                <span className="w-12 shrink-0 self-center text-xs text-ink-2">row {row}</span>
                {mine
                  .filter(({ cell }) => cell.row === row)
                  .map(({ cell, n }) => (
                    <button
                      key={cell.place}
                      type="button"
                      aria-pressed={n === now}
                      aria-label={`${plane} row ${cell.row} place ${cell.column}: ${cell.text || 'no sticker'}${cell.problem ? `, ${cell.problem}` : ''}`}
                      onClick={() => pick(n)}
                      style={{ minWidth: 46 * cell.modules.length }}
                      className={`h-11 truncate rounded-sm border px-1 font-mono text-xs ${n === now ? 'border-copper border-2' : cell.problem ? 'border-warn' : 'border-field'} ${cell.problem ? 'bg-warn-wash' : cell.text ? 'bg-patina-wash' : 'bg-sheet'}`}
                    >
                      {cell.text ? `…${cell.text.slice(-4)}` : '–'}
                    </button>
                  ))}
              </div>
            ))}
          </div>
        );
      })}
    </div>
  );
}
