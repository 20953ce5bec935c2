/** Where strings' ends come together: conductors and cable of each box. */
import type { RoofPlane, Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { Button } from '@/ui/Button';
import { formatLength } from '@/units/length';

export function HomeRunsTold({ plane, onAdd }: { plane: RoofPlane; onAdd: () => void }) {
  const { job, option, report, act } = useJob();
  const mine = report.boxes.filter(({ box }) => box.plane_id === plane.id);
  const homeless = option.strings.filter(
    (s) => !report.boxes.some(({ runs }) => runs.some((run) => run.tag === s.tag)),
  );
  return (
    <div className="flex flex-col gap-1.5 text-sm">
      {mine.map(({ box, runs, length_m }, index) => (
        <div key={box.id} className="flex items-start justify-between gap-2">
          <p>
            Box {index + 1}: <b>{runs.length}</b> conductors and the ground
            <span className="block text-xs text-ink-2">
              {endsOf(runs)}
              {runs.length > 0 && `, ${formatLength(length_m, job.unit)} of cable`}
            </span>
          </p>
          <Button
            aria-label={`Take box ${index + 1} away`}
            onClick={() => void act({ kind: 'remove-box', option_id: option.id, box_id: box.id })}
          >
            ×
          </Button>
        </div>
      ))}
      {homeless.length > 0 && (
        <p className="text-xs text-ink-2">
          No box for {homeless.map((s) => s.tag).join(', ')}: its home runs are not measured.
        </p>
      )}
      <Button hint="J" className="self-start" onClick={onAdd}>
        Add a box
      </Button>
      <p className="text-xs text-ink-2">
        Draw it to its place. Cable along rails and down, straight to the box.
      </p>
    </div>
  );
}

/** `A+ A− B+`: whose ends come in. */
function endsOf(runs: readonly Schemas['HomeRun'][]): string {
  return runs.map((run) => `${run.tag}${run.positive ? '+' : '−'}`).join(' ') || 'no end near it';
}
