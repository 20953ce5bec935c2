/** The mark, the job, its options as tabs, saved state, unit, find and keys. */
import { Link, useNavigate } from 'react-router';
import { useJob, useSaving } from '@/plan/JobContext';
import { Button } from '@/ui/Button';
import { InlineName } from '@/ui/InlineName';
import { UnitSwitch } from '@/ui/UnitSwitch';
import { clock } from '@/units/format';
import mark from './mark.svg';

interface TopBarProps {
  stepId: string;
  tallyOpen: boolean;
  onTally: () => void;
  onFind: () => void;
  onKeys: () => void;
}

export function TopBar({ stepId, tallyOpen, onTally, onFind, onKeys }: TopBarProps) {
  const { job, state, waiting, act, undo, redo } = useJob();
  const saving = useSaving();
  return (
    <header className="flex min-h-[46px] shrink-0 flex-wrap items-center gap-x-3 gap-y-1 border-b border-rule bg-sheet px-3.5 py-1 max-md:gap-x-1 max-md:px-2">
      <Link to="/" className="flex items-center gap-2 text-lg font-semibold whitespace-nowrap">
        <img src={mark} alt="" width="27" height="20" />
        <span className="max-md:sr-only">Ridge Tally</span>
      </Link>
      <span aria-hidden="true" className="text-ink-3 max-md:hidden">
        /
      </span>
      <InlineName
        label="Name of the job"
        hint="Rename the job"
        value={job.name}
        onName={(name) => act({ kind: 'rename-job', name })}
        className="max-w-[280px] text-base font-medium"
      />
      <OptionTabs stepId={stepId} />
      <span className="grow max-md:w-full" />
      <span
        className={`text-sm whitespace-nowrap ${waiting ? 'font-semibold text-warn' : 'text-ink-2'}`}
        role="status"
      >
        {waiting
          ? 'No answer: your change waits and is sent again'
          : saving
            ? 'Saving'
            : `Saved ${clock(state.saved_at)}`}
      </span>
      <span className="flex gap-1">
        <Button
          aria-label="Undo"
          title={state.undo ? `Undo: ${state.undo}` : 'Nothing to undo'}
          disabled={!state.undo}
          onClick={undo}
        >
          <Arrow />
        </Button>
        <Button
          aria-label="Redo"
          title={state.redo ? 'Redo' : 'Nothing to redo'}
          disabled={!state.redo}
          onClick={redo}
        >
          <Arrow mirrored />
        </Button>
      </span>
      <UnitSwitch unit={job.unit} onUnit={(unit) => act({ kind: 'set-unit', unit })} />
      <Button
        className="min-[1101px]:hidden"
        weight={tallyOpen ? 'pressed' : 'plain'}
        aria-expanded={tallyOpen}
        onClick={onTally}
      >
        Tally
      </Button>
      <Button hint="/" onClick={onFind}>
        Find or do
      </Button>
      <Button aria-label="Keys of this step" onClick={onKeys}>
        ?
      </Button>
    </header>
  );
}

function Arrow({ mirrored = false }: { mirrored?: boolean }) {
  return (
    <svg
      width="14"
      height="12"
      viewBox="0 0 14 12"
      aria-hidden="true"
      style={mirrored ? { transform: 'scaleX(-1)' } : undefined}
    >
      <path
        d="M5 1 1.5 4.5 5 8M2 4.5h7a3 3 0 0 1 0 6H6"
        stroke="currentColor"
        strokeWidth="1.6"
        fill="none"
        strokeLinecap="round"
        strokeLinejoin="round"
      />
    </svg>
  );
}

function OptionTabs({ stepId }: { stepId: string }) {
  const { job, option, state, edit, act, at } = useJob();
  const navigate = useNavigate();
  const add = async () => {
    const saved = await edit({
      kind: 'copy-option',
      option_id: option.id,
      name: `copy of ${option.id.toUpperCase()}`,
    });
    const added = saved.job.options.at(-1);
    if (added) void navigate(`/jobs/${at.jobId}/${added.id}/${stepId}`);
  };
  return (
    <nav aria-label="Options" className="flex min-w-0">
      {job.options.map((o) => {
        const here = o.id === option.id;
        const broken = state.reports.find((r) => r.option_id === o.id)?.broken_stops ?? 0;
        const look = `flex h-[27px] min-w-8 items-center justify-center gap-1 border border-r-0 px-2.5 text-sm font-medium first:rounded-l-md ${here ? 'border-ink bg-ink text-sheet' : 'border-rule bg-sheet'}`;
        const mark = broken > 0 && (
          <svg width="8" height="8" role="img" aria-label="a Stop limit is broken">
            <rect
              width="8"
              height="8"
              fill={here ? 'var(--color-stop-pale)' : 'var(--color-stop)'}
            />
          </svg>
        );
        return here ? (
          <span key={o.id} aria-current="page" className={look}>
            {o.id.toUpperCase()}
            <InlineName
              label="Name of the option"
              hint="Rename this option"
              value={o.name}
              onName={(name) => act({ kind: 'rename-option', option_id: o.id, name })}
              className="max-w-[150px]"
            />
            {mark}
          </span>
        ) : (
          <Link
            key={o.id}
            to={`/jobs/${at.jobId}/${o.id}/${stepId}`}
            title={o.name}
            className={look}
          >
            {o.id.toUpperCase()}
            {mark}
          </Link>
        );
      })}
      <button
        type="button"
        aria-label={`New option from ${option.id.toUpperCase()}`}
        title="New option from this one"
        className="h-[27px] min-w-8 rounded-r-md border border-rule bg-sheet text-sm font-medium hover:border-field"
        onClick={() => void add()}
      >
        +
      </button>
    </nav>
  );
}
