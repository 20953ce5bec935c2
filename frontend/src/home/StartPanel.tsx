/** What a new job starts with: a roof, a ground array, a carport; a sample; a file. */
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import type { JobState, Schemas } from '@/api/client';
import { jobKey, jobsQuery } from '@/api/queries';
import { Button } from '@/ui/Button';
import { Menu } from '@/ui/Menu';
import { useNotify } from '@/ui/Notices';
import { UnitSwitch } from '@/ui/UnitSwitch';
import * as queries from './queries';

const BEGINNINGS = [
  { shape: 'gable', label: 'Roof', path: 'M2 15 12 5l10 10M5 12.5V20h14v-7.5' },
  { shape: 'ground', label: 'Ground', path: 'M4 14 18 7M8 12v7M15 8.5V19M2 19h20' },
  { shape: 'carport', label: 'Carport', path: 'M2 9 22 6M5 8.6V19M19 6.5V19M8 19v-4h8v4' },
] as const;

const SAMPLES: { sample: queries.Sample; label: string }[] = [
  { sample: 'juniper-bench', label: 'Juniper Bench: a gable in feet, a string too long' },
  { sample: 'lagoon-road', label: 'Lagoon Road: a hip roof in three architectures' },
  { sample: 'kiln-yard', label: 'Kiln Yard: a ground array in three rows' },
  { sample: 'mill-terrace', label: 'Mill Terrace: three roofs, an overrun tracker' },
  { sample: 'tollgate', label: 'Tollgate: built, with two faults to find' },
];

function useOpened() {
  const client = useQueryClient();
  const navigate = useNavigate();
  const notify = useNotify();
  return {
    onSuccess: (state: JobState) => {
      client.setQueryData(jobKey(state.job_id), state);
      void client.invalidateQueries({ queryKey: jobsQuery.queryKey });
      void navigate(`/jobs/${state.job_id}/a/brief`);
    },
    onError: (error: Error) => notify({ text: error.message, tone: 'stop' }),
  };
}

export function StartPanel() {
  const [name, setName] = useState('');
  const [unit, setUnit] = useState<Schemas['LengthUnit']>('m');
  const [begins, setBegins] = useState<Schemas['PlaneShape']>('gable');
  const file = useRef<HTMLInputElement>(null);
  const opened = useOpened();
  const create = useMutation({
    mutationFn: () => queries.create({ name, unit, begins }),
    ...opened,
  });
  const bring = useMutation({ mutationFn: queries.bring, ...opened });
  const sample = useMutation({ mutationFn: queries.beginWith, ...opened });
  return (
    <form
      aria-label="Start a job"
      className="flex flex-wrap items-end gap-x-3 gap-y-2 rounded-lg border border-rule bg-sheet p-3"
      onSubmit={(event) => {
        event.preventDefault();
        if (name.trim()) create.mutate();
      }}
    >
      <fieldset className="flex gap-1.5" aria-label="Begins with">
        {BEGINNINGS.map(({ shape, label, path }) => (
          <button
            type="button"
            key={shape}
            aria-pressed={shape === begins}
            onClick={() => setBegins(shape)}
            className={`flex h-[58px] w-[76px] flex-col items-center justify-center rounded-md border text-sm font-medium ${shape === begins ? 'border-ink bg-ink text-sheet' : 'border-rule bg-sheet hover:border-field'}`}
          >
            <svg width="26" height="24" viewBox="0 0 24 24" aria-hidden="true">
              <path d={path} fill="none" stroke="currentColor" strokeWidth="1.6" />
            </svg>
            {label}
          </button>
        ))}
      </fieldset>
      <label className="flex flex-col gap-1 text-sm">
        <span className="text-xs text-ink-2">Name</span>
        <input
          aria-label="Name of a new job"
          placeholder="Street, owner, as you like"
          value={name}
          maxLength={80}
          onChange={(event) => setName(event.target.value)}
          className="h-[29px] w-[250px] rounded-md border border-field bg-sheet px-2.5 text-sm"
        />
      </label>
      <UnitSwitch unit={unit} onUnit={setUnit} />
      <Button type="submit" weight="main" disabled={!name.trim() || create.isPending}>
        New job
      </Button>
      <span className="grow" />
      <Menu
        label="Begin with a sample"
        items={SAMPLES.map((one) => ({ label: one.label, run: () => sample.mutate(one.sample) }))}
      />
      <Button onClick={() => file.current?.click()} disabled={bring.isPending}>
        Open a job file
      </Button>
      <input
        ref={file}
        type="file"
        accept=".json,.zip,application/json,application/zip"
        aria-label="Job file"
        className="hidden"
        onChange={(event) => {
          const chosen = event.target.files?.[0];
          if (chosen) bring.mutate(chosen);
          event.target.value = '';
        }}
      />
    </form>
  );
}
