/** What the house uses by the hour: a day's shape under the bills, or its own metered year. */
import { useState } from 'react';
import type { Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { Button } from '@/ui/Button';
import { Choice } from '@/ui/Choice';
import { FilePick } from '@/ui/FilePick';
import { useFileRead } from '@/ui/useFileRead';
import { figure } from '@/units/format';
import { sendLoad } from '../queries';

const SHAPES: { value: Schemas['DayShape']; label: string }[] = [
  { value: 'home', label: 'Somebody at home' },
  { value: 'out', label: 'Out on workdays' },
  { value: 'car', label: 'Out, a car by night' },
  { value: 'heat-pump', label: 'At home, heat pump' },
];

interface LoadBarProps {
  origin: string;
  caveats: readonly string[];
}

export function LoadBar({ origin, caveats }: LoadBarProps) {
  const { at, act, brief, job } = useJob();
  const [found, setFound] = useState<Schemas['LoadFileTold'] | null>(null);
  const { read, reading, problem } = useFileRead((file: File) => sendLoad(at, file), setFound);
  const [open, setOpen] = useState(false);
  const { household } = job.brief;
  const file = household.load_file;
  const use = async (ref: Schemas['LoadFileRef']) => {
    await act({ kind: 'use-load-file', file: ref });
    setFound(null);
  };
  return (
    <div className="shrink-0 px-3.5 pt-2">
      <div className="flex flex-wrap items-center gap-1.5">
        <span className="shrink-0 text-sm font-semibold">The house’s use</span>
        {brief.usage && !file && (
          <Choice
            label="The house’s day"
            value={household.shape}
            items={SHAPES}
            onChange={(shape) =>
              void act({ kind: 'set-day-shape', shape: shape as Schemas['DayShape'] })
            }
          />
        )}
        {found ? (
          <>
            <Button weight="main" onClick={() => void use(found.ref)}>
              Use {found.ref.file}
            </Button>
            <Button onClick={() => setFound(null)}>Leave it</Button>
          </>
        ) : (
          <>
            <FilePick label="Metered year, CSV" accept=".csv,.txt,.tsv" onFile={read} />
            {file && (
              <Button onClick={() => void act({ kind: 'forget-load-file' })}>
                Back to the bills
              </Button>
            )}
          </>
        )}
        {reading && (
          <span role="status" className="text-sm">
            Reading it
          </span>
        )}
        <span className="min-w-0 grow basis-[200px] text-xs text-ink-2">{origin}</span>
        {caveats.length > 0 && (
          <button
            type="button"
            aria-expanded={open}
            className="min-h-6 shrink-0 text-xs text-warn underline"
            onClick={() => setOpen(!open)}
          >
            {file ? 'what it rests on' : 'estimated'}
          </button>
        )}
      </div>
      {open && <p className="mt-1 text-xs text-warn">{caveats.map((caveat) => `${caveat}. `)}</p>}
      {found && (
        <div className="mt-1 text-xs">
          <b>{found.ref.file}</b>: {figure(found.ref.energy_kwh)} kWh a year, at most{' '}
          {figure(found.most_kw, 1)} kW in an hour.{' '}
          <span className="text-warn">{found.notes.map((note) => `${note}. `)}</span>
        </div>
      )}
      {problem && (
        <p role="alert" className="mt-1 rounded-sm bg-stop-wash px-1.5 py-1 text-xs text-stop">
          {problem} The use there was stays.
        </p>
      )}
    </div>
  );
}
