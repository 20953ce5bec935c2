/** Find a step or an option, or do something, by typing a few letters. */
import { useState } from 'react';
import { briefAddress, jobFileAddress, sheetAddress } from '@/api/queries';
import { useJob } from '@/plan/JobContext';
import { Panel } from '@/ui/Panel';
import { STEPS } from './steps';

interface FindOrDoProps {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  go: (to: string) => void;
  stepId: string;
}

interface Deed {
  name: string;
  run: () => void;
}

export function FindOrDo({ open, onOpenChange, go, stepId }: FindOrDoProps) {
  const [typed, setTyped] = useState('');
  const deeds = useDeeds(go, stepId);
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
  const found = deeds.filter((deed) =>
    words.every((word) => deed.name.toLowerCase().includes(word)),
  );
  const run = (deed: Deed | undefined) => {
    if (!deed) return;
    onOpenChange(false);
    setTyped('');
    deed.run();
  };
  return (
    <Panel
      title="Find or do"
      description="Type a few letters; Enter takes the first."
      open={open}
      onOpenChange={onOpenChange}
    >
      <input
        // biome-ignore lint/a11y/noAutofocus: the panel was opened to type
        autoFocus
        aria-label="Find or do"
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
        onKeyDown={(event) => event.key === 'Enter' && run(found[0])}
        className="mb-2 h-9 w-full rounded-md border border-field bg-sheet px-3 text-base"
      />
      <ul>
        {found.map((deed, i) => (
          <li key={deed.name}>
            <button
              type="button"
              className={`min-h-8 w-full rounded-sm px-3 text-left text-sm hover:bg-patina-wash ${i === 0 ? 'bg-paper font-medium' : ''}`}
              onClick={() => run(deed)}
            >
              {deed.name}
            </button>
          </li>
        ))}
        {found.length === 0 && (
          <li className="px-3 py-2 text-sm text-ink-2">Nothing of that name.</li>
        )}
      </ul>
    </Panel>
  );
}

function useDeeds(go: (to: string) => void, stepId: string): Deed[] {
  const { job, option, plane, showPlane, at, state, act, undo, redo } = useJob();
  const deeds: Deed[] = STEPS.map((step) => ({
    name: `Go to ${step.title}`,
    run: () => go(`${option.id}/${step.id}`),
  }));
  for (const step of STEPS)
    for (const view of step.views ?? [])
      deeds.push({
        name: `Go to ${step.title}, ${view.title}`,
        run: () => go(`${option.id}/${step.id}?view=${view.id}`),
      });
  for (const other of job.options) {
    deeds.push({
      name: `Option ${other.id.toUpperCase()}: ${other.name}`,
      run: () => go(`${other.id}/${stepId}`),
    });
  }
  if (plane) {
    for (const [ways, way] of [
      ['P', 'portrait'],
      ['L', 'landscape'],
      ['PL', 'mixed rows'],
    ] as const) {
      deeds.push({
        name: `Fill ${plane.name} in ${way}`,
        run: () => act({ kind: 'fill-plane', option_id: option.id, plane_id: plane.id, ways }),
      });
    }
  }
  if (plane) {
    deeds.push(
      {
        name: `Derive the other side of ${plane.name}`,
        run: () => void act({ kind: 'add-other-side', plane_id: plane.id }),
      },
      { name: 'Add a plane', run: () => void act({ kind: 'add-plane', shape: 'gable' }) },
    );
  }
  for (const other of job.survey.planes)
    deeds.push({ name: `Look at ${other.name}`, run: () => showPlane(other.id) });
  deeds.push(
    {
      name: 'Let the planner choose string lengths',
      run: () => act({ kind: 'wish-series-length', option_id: option.id, modules_in_series: null }),
    },
    {
      name: 'Copy this option',
      run: () =>
        act({
          kind: 'copy-option',
          option_id: option.id,
          name: `copy of ${option.id.toUpperCase()}`,
        }),
    },
    { name: 'Remove this option', run: () => act({ kind: 'remove-option', option_id: option.id }) },
    { name: 'Download the sheet (PDF)', run: () => window.open(sheetAddress(at), '_blank') },
    { name: 'Download the brief (PDF)', run: () => window.open(briefAddress(at), '_blank') },
    { name: 'Download the job file', run: () => window.open(jobFileAddress(at.jobId), '_blank') },
  );
  if (state.undo) deeds.push({ name: `Undo: ${state.undo}`, run: undo });
  if (state.redo) deeds.push({ name: 'Redo', run: redo });
  return deeds;
}
