/** The planes of the roof over the drawing: which one is looked at; in the survey also more of them. */
import type { Edit } from '@/api/client';
import { Button } from '@/ui/Button';
import { InlineName } from '@/ui/InlineName';
import { useNotify } from '@/ui/Notices';
import { useJob } from './JobContext';

export function PlaneTabs({ survey = false }: { survey?: boolean }) {
  const { job, plane, showPlane, edit, act } = useJob();
  const notify = useNotify();
  const add = (change: Edit) =>
    edit(change).then(
      (state) => showPlane(state.job.survey.planes.at(-1)?.id ?? ''),
      (error: Error) => notify({ text: error.message, tone: 'stop' }),
    );
  const { planes } = job.survey;
  if (!plane || (planes.length === 1 && !survey)) return null;
  return (
    <div className="flex shrink-0 flex-wrap items-center gap-1.5 px-3.5 pt-2">
      <fieldset aria-label="Roof planes" className="flex flex-wrap gap-1">
        {planes.map((p) => (
          <Button
            key={p.id}
            weight={p.id === plane.id ? 'pressed' : 'plain'}
            aria-pressed={p.id === plane.id}
            onClick={() => showPlane(p.id)}
          >
            {p.name}
          </Button>
        ))}
      </fieldset>
      {survey && (
        <>
          <Button onClick={() => void add({ kind: 'add-plane' })}>Add plane</Button>
          <Button onClick={() => void add({ kind: 'add-other-side', plane_id: plane.id })}>
            Other side
          </Button>
          {planes.length > 1 && (
            <Button
              aria-label={`Remove ${plane.name}`}
              onClick={() => act({ kind: 'remove-plane', plane_id: plane.id })}
            >
              Remove
            </Button>
          )}
        </>
      )}
    </div>
  );
}

/** The plane's name, a field when it is clicked. */
export function PlaneName() {
  const { plane, act } = useJob();
  if (!plane) return null;
  return (
    <InlineName
      label="Name of the plane"
      hint="Click to rename"
      value={plane.name}
      onName={(name) => act({ kind: 'rename-plane', plane_id: plane.id, name })}
      className="max-w-[150px]"
    />
  );
}
