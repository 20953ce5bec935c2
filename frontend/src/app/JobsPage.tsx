/** All jobs: open, create, copy, delete with undo, bring in a job file. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { api, type Found, foundOf, type JobState, type Schemas, unwrap } from '@/api/client';
import { jobKey, jobsQuery } from '@/api/queries';
import { Button } from '@/ui/Button';
import { useNotify } from '@/ui/Notices';
import { Failed } from '@/ui/States';
import { UnitSwitch } from '@/ui/UnitSwitch';
import mark from './mark.svg';

export function JobsPage() {
  const jobs = useQuery(jobsQuery);
  return (
    <div className="mx-auto flex h-full max-w-[860px] flex-col px-6">
      <header className="flex items-center gap-3 py-6">
        <img src={mark} alt="" width="38" height="29" />
        <h1 className="text-lg font-semibold">Ridge Tally</h1>
        <span className="text-sm text-ink-2">from tape readings to a checked design</span>
        <span className="grow" />
        <Link to="/shelf" className="text-sm underline">
          Shelf of equipment
        </Link>
      </header>
      <main className="grow">
        <NewJob />
        <h2 className="mt-6 border-b border-rule pb-1 text-sm font-semibold text-ink-2">Jobs</h2>
        {jobs.isPending && <p className="py-3 text-sm text-ink-2">Reading the list</p>}
        {jobs.isError && <Failed error={jobs.error} tight />}
        {jobs.data?.length === 0 && (
          <p className="py-3 text-sm text-ink-2">
            No jobs yet. Name the first one above, or open a job file.
          </p>
        )}
        <ul>
          {jobs.data?.map((job) => (
            <JobRow key={job.id} job={job} />
          ))}
        </ul>
      </main>
      <footer className="py-4 text-xs text-ink-2">
        Ridge Tally assists; local code, the authority having jurisdiction, the utility and licensed
        people decide.
      </footer>
    </div>
  );
}

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

/** What the modules of a new job are to stand on. */
const BEGINNINGS = [
  { shape: 'gable', label: 'Roof', corners: 'rounded-r-none' },
  { shape: 'ground', label: 'Ground', corners: 'rounded-none border-l-0' },
  { shape: 'carport', label: 'Carport', corners: 'rounded-l-none border-l-0' },
] as const;

function NewJob() {
  const [name, setName] = useState('');
  const [unit, setUnit] = useState<Schemas['LengthUnit']>('m');
  const [begins, setBegins] = useState<Schemas['PlaneShape']>('gable');
  const file = useRef<HTMLInputElement>(null);
  const opened = useOpened();
  const create = useMutation({
    mutationFn: () => foundOf(api.POST('/api/jobs', { body: { name, unit, begins } })),
    ...opened,
  });
  const bring = useMutation({
    mutationFn: async (chosen: File) => {
      const asked = fetch('/api/jobs/import', {
        method: 'POST',
        body: await chosen.arrayBuffer(),
        headers: { 'X-File-Name': encodeURIComponent(chosen.name) },
      }).then(async (response) => {
        const body = (await response.json()) as Found<Schemas['JobState']>;
        return response.ok ? { data: body, response } : { error: body, response };
      });
      return foundOf<Schemas['JobState']>(asked);
    },
    ...opened,
  });
  return (
    <form
      className="flex flex-wrap items-center gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (name.trim()) create.mutate();
      }}
    >
      <input
        aria-label="Name of a new job"
        placeholder="Name of a new job"
        value={name}
        maxLength={80}
        onChange={(event) => setName(event.target.value)}
        className="h-[29px] w-[260px] rounded-md border border-field bg-sheet px-2.5 text-sm"
      />
      <fieldset className="flex" aria-label="Begins with">
        {BEGINNINGS.map(({ shape, label, corners }) => (
          <Button
            key={shape}
            weight={shape === begins ? 'pressed' : 'plain'}
            aria-pressed={shape === begins}
            className={corners}
            onClick={() => setBegins(shape)}
          >
            {label}
          </Button>
        ))}
      </fieldset>
      <UnitSwitch unit={unit} onUnit={setUnit} />
      <Button type="submit" weight="main" disabled={!name.trim() || create.isPending}>
        New job
      </Button>
      <span className="grow" />
      <Button onClick={() => file.current?.click()} disabled={bring.isPending}>
        Open a job file
      </Button>
      <input
        ref={file}
        type="file"
        accept=".json,application/json"
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

function JobRow({ job }: { job: Schemas['JobListEntry'] }) {
  const client = useQueryClient();
  const notify = useNotify();
  const refresh = () => void client.invalidateQueries({ queryKey: jobsQuery.queryKey });
  const onError = (error: Error) => notify({ text: error.message, tone: 'stop' });
  const params = { path: { job_id: job.id } };
  const copy = useMutation({
    mutationFn: () => unwrap(api.POST('/api/jobs/{job_id}/duplicate', { params })),
    onSuccess: refresh,
    onError,
  });
  const restore = useMutation({
    mutationFn: () => unwrap(api.POST('/api/jobs/{job_id}/restore', { params })),
    onSuccess: refresh,
    onError,
  });
  const remove = useMutation({
    mutationFn: () => unwrap(api.DELETE('/api/jobs/{job_id}', { params })),
    onSuccess: () => {
      refresh();
      notify({
        text: `“${job.name}” is deleted.`,
        tone: 'plain',
        action: { label: 'Undo', run: () => restore.mutate() },
      });
    },
    onError,
  });
  return (
    <li className="flex items-center gap-3 border-b border-rule py-2">
      <Link to={`/jobs/${job.id}/a/brief`} className="grow text-base font-medium hover:underline">
        {job.name}
      </Link>
      <span className="text-sm text-ink-2">
        revision {job.revision},{' '}
        {new Date(job.saved_at).toLocaleDateString('en-GB', {
          day: 'numeric',
          month: 'short',
          year: 'numeric',
        })}
      </span>
      <Button aria-label={`Duplicate ${job.name}`} onClick={() => copy.mutate()}>
        Duplicate
      </Button>
      <Button aria-label={`Delete ${job.name}`} onClick={() => remove.mutate()}>
        Delete
      </Button>
    </li>
  );
}
