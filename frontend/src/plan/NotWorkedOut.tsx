/** What is shown of a job whose figures the program cannot work out: why, and the ways on. */
import { Link } from 'react-router';
import type { JobState } from '@/api/client';
import { jobFileAddress } from '@/api/queries';
import { Button } from '@/ui/Button';

interface NotWorkedOutProps {
  state: JobState;
  act: (change: 'undo' | 'redo') => void;
}

export function NotWorkedOut({ state, act }: NotWorkedOutProps) {
  const { job, problem, reports } = state;
  const others = job.options.filter((o) => reports.some((r) => r.option_id === o.id));
  return (
    <div className="m-auto max-w-[520px] p-10" role="alert">
      <h1 className="mb-2 text-lg font-semibold">{job.name} cannot be worked out as it stands</h1>
      <p className="mb-2 text-base">{problem}</p>
      <p className="mb-4 text-sm text-ink-2">
        Everything in it is kept. Undo goes back to where it could be; the job file carries all of
        it to whoever keeps this program.
      </p>
      <div className="flex flex-wrap items-center gap-4 text-sm font-medium">
        <Button weight="main" disabled={!state.undo} onClick={() => act('undo')}>
          {state.undo ? `Undo: ${state.undo}` : 'Nothing to undo'}
        </Button>
        {state.redo && <Button onClick={() => act('redo')}>Redo</Button>}
        {others.map((o) => (
          <Link key={o.id} className="underline" to={`/jobs/${state.job_id}/${o.id}/brief`}>
            Option {o.id.toUpperCase()}
          </Link>
        ))}
        <a className="underline" href={jobFileAddress(state.job_id)} download>
          Job file
        </a>
        <Link className="underline" to="/">
          All jobs
        </Link>
      </div>
    </div>
  );
}
