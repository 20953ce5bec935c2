/** Lot lines by name, and the user's own plat or overhead picture to trace from. */
import { sendPicture } from '@/api/pictures';
import { useJob } from '@/plan/JobContext';
import { Button } from '@/ui/Button';
import { FilePick } from '@/ui/FilePick';
import { InlineName } from '@/ui/InlineName';
import { useNotify } from '@/ui/Notices';
import { TypedField } from '@/ui/TypedField';
import { formatLength } from '@/units/length';
import type { SitePoint, SiteTool } from '../siteTool';
import { typedMetres } from './typedMetres';

export function LotFace({ onTake }: { onTake: (tool: SiteTool) => void }) {
  const { job, act } = useJob();
  const { lot_lines } = job.survey;
  return (
    <div className="flex gap-8">
      <div className="w-[300px]">
        <h2 className="text-sm font-semibold">Lot lines</h2>
        {lot_lines.length === 0 && (
          <p className="text-sm text-ink-2">None yet: take Lot line and click along it.</p>
        )}
        <ul>
          {lot_lines.map((line) => (
            <li key={line.id} className="flex items-center justify-between gap-2 text-sm">
              <InlineName
                label="Name of the lot line"
                hint="Click to rename"
                value={line.name}
                onName={(name) => act({ kind: 'rename-lot-line', lot_line_id: line.id, name })}
              />
              <span className="text-xs text-ink-2">
                {line.points.length} points, {line.closed ? 'closed' : 'open'}
              </span>
              <Button onClick={() => act({ kind: 'remove-lot-line', lot_line_id: line.id })}>
                Remove
              </Button>
            </li>
          ))}
        </ul>
      </div>
      <PictureUnder onTake={onTake} />
    </div>
  );
}

function PictureUnder({ onTake }: { onTake: (tool: SiteTool) => void }) {
  const { job, act, edit } = useJob();
  const notify = useNotify();
  const { trace } = job.survey;
  const take = (file: File) =>
    void sendPicture(file).then(
      (picture) => act({ kind: 'set-trace', picture }),
      (error: Error) => notify({ text: error.message, tone: 'stop' }),
    );
  const move = (at: SitePoint, axis: 'east_m' | 'north_m') => async (typed: string) =>
    edit({ kind: 'move-trace', at: { ...at, [axis]: await typedMetres(typed, job.unit) } });
  return (
    <div className="w-[360px]">
      <h2 className="text-sm font-semibold">Picture under the plan</h2>
      {!trace && (
        <p className="mb-1.5 text-sm text-ink-2">
          Your own plat or overhead picture (JPEG or PNG, at most 20 MB), to trace from.
        </p>
      )}
      <span className="flex flex-wrap gap-1.5 py-1">
        <FilePick
          label={trace ? 'Another picture' : 'Choose a picture'}
          accept="image/*"
          onFile={take}
        />
        {trace && (
          <>
            <Button onClick={() => onTake({ kind: 'scale', first: null })}>
              Scale by two points
            </Button>
            <Button onClick={() => act({ kind: 'remove-trace' })}>Remove</Button>
          </>
        )}
      </span>
      {trace && (
        <div className="flex flex-col gap-[3px]">
          <p className="text-xs text-ink-2">
            {trace.distance.typed
              ? `Scaled: two points ${trace.distance.typed} apart.`
              : 'Not scaled yet: its size is a guess.'}
          </p>
          <TypedField
            label="Its up points, clockwise from north"
            value={`${trace.turned_deg}°`}
            width={84}
            align="right"
            showLabel
            commit={(typed) => edit({ kind: 'turn-trace', typed })}
          />
          {(['east_m', 'north_m'] as const).map((axis) => (
            <TypedField
              key={axis}
              label={`First point lies ${axis === 'east_m' ? 'east' : 'north'} by`}
              value={formatLength(trace.at[axis], job.unit)}
              width={84}
              align="right"
              showLabel
              commit={move(trace.at, axis)}
            />
          ))}
        </div>
      )}
    </div>
  );
}
