/** Every tape reading: as read, as it fits, how far off; and the facts the sketch was drawn with. */
import type { RoofPlane, Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import type { PlaneSurvey } from '@/plan/scene';
import { Button } from '@/ui/Button';
import { Card } from '@/ui/Card';
import { Choice } from '@/ui/Choice';
import { mark } from '../planeTool';

const LENGTHS: readonly Schemas['ReadingKind'][] = ['side', 'diagonal', 'offset', 'along'];
const EDGE_KINDS: Schemas['EdgeKind'][] = [
  'eave',
  'rake',
  'ridge',
  'hip',
  'valley',
  'wall',
  'boundary',
];

interface ReadingsCardProps {
  plane: RoofPlane;
  seen: PlaneSurvey;
  edge: number | null;
  onEdge: (edge: number | null) => void;
}

export function ReadingsCard({ plane, seen, edge, onEdge }: ReadingsCardProps) {
  const lengths = seen.readings.filter((r) => LENGTHS.includes(r.kind));
  const used = lengths.filter((r) => !r.left_out).length;
  return (
    <Card
      title="Tape readings"
      aside={lengths.length ? `${used} of ${lengths.length} used` : 'none yet'}
      className="flex w-[292px] shrink-0 flex-col"
    >
      {lengths.length === 0 ? (
        <>
          <p className="text-sm text-ink-2">
            Type what the tape read into the fields on the drawing; Tab goes on round the outline.
          </p>
          <p className="mt-1 text-xs text-warn">
            {plane.ground
              ? 'Have buried cables and pipes located before anybody digs or drives a post; survey pegs of the lot line are the surveyor’s.'
              : 'On the roof: tie off, stay clear of edges and fragile coverings; leave hot metal, wet and wind for another day.'}
          </p>
        </>
      ) : (
        <ReadingTable plane={plane} readings={lengths} edge={edge} onEdge={onEdge} />
      )}
      <Marks plane={plane} seen={seen} />
      {edge !== null && seen.edges[edge] && (
        <EdgeTools plane={plane} seen={seen} edge={edge} onDone={() => onEdge(null)} />
      )}
    </Card>
  );
}

interface ReadingTableProps {
  plane: RoofPlane;
  readings: PlaneSurvey['readings'];
  edge: number | null;
  onEdge: (edge: number | null) => void;
}

function ReadingTable({ plane, readings, edge, onEdge }: ReadingTableProps) {
  const { act } = useJob();
  return (
    <div className="min-h-0 grow overflow-y-auto">
      <table className="w-full text-sm">
        <thead>
          <tr className="text-xs text-ink-2">
            <th className="text-left font-normal">what</th>
            <th className="text-right font-normal">read</th>
            <th className="text-right font-normal">fits as</th>
            <th className="text-right font-normal">off</th>
            <th className="sr-only">use</th>
          </tr>
        </thead>
        <tbody className="font-figure">
          {readings.map((r) => {
            const chosen = r.kind === 'side' && r.at[0] === edge;
            return (
              <tr
                key={`${r.kind} ${r.at}`}
                className={
                  r.suspect ? 'bg-warn-wash text-warn' : chosen ? 'bg-copper-wash' : undefined
                }
              >
                <td className="max-w-[84px] truncate font-sans">
                  {r.kind === 'side' ? (
                    <button
                      type="button"
                      className="min-h-6 text-left hover:underline"
                      title="Choose this side: its kind, a corner in it"
                      onClick={() => onEdge(chosen ? null : (r.at[0] ?? null))}
                    >
                      {r.name}
                    </button>
                  ) : (
                    <span title={r.name}>{r.name}</span>
                  )}
                </td>
                <td className="text-right whitespace-nowrap">
                  {r.typed}
                  {r.derived && <span className="text-ink-2"> *</span>}
                </td>
                <td className="text-right whitespace-nowrap text-ink-2">{r.fits_text}</td>
                <td className="text-right whitespace-nowrap">
                  {r.left_out ? 'out' : r.residual_text.replace(/ \(.*\)/, '')}
                </td>
                <td className="w-6 text-right">
                  <button
                    type="button"
                    className="min-h-6 min-w-6 text-xs text-patina"
                    aria-label={r.left_out ? `Use ${r.name} again` : `Leave ${r.name} out`}
                    title={r.left_out ? 'Use it again' : 'Leave it out'}
                    onClick={() =>
                      act({
                        kind: 'leave-out-reading',
                        plane_id: plane.id,
                        reading: r.kind,
                        at: r.at,
                        out: !r.left_out,
                      })
                    }
                  >
                    {r.left_out ? '+' : '×'}
                  </button>
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      {readings.some((r) => r.derived) && (
        <p className="text-xs text-ink-2">* from the plane it was derived from, not taped.</p>
      )}
    </div>
  );
}

/** Corners drawn square, sides drawn parallel, corners in line: each can be taken back. */
function Marks({ plane, seen }: { plane: RoofPlane; seen: PlaneSurvey }) {
  const { act } = useJob();
  const marks = seen.readings.filter((r) => !LENGTHS.includes(r.kind));
  const squares = marks.filter((r) => r.kind === 'right_angle');
  const others = marks.filter((r) => r.kind !== 'right_angle');
  if (marks.length === 0) return null;
  return (
    <div className="mt-auto max-h-[66px] shrink-0 overflow-y-auto border-t border-rule pt-1 text-xs text-ink-2">
      {squares.length > 0 && (
        <p>
          Drawn square: {squares.length === seen.corners.length ? 'every corner' : ''}
          {squares.length < seen.corners.length &&
            `corners ${squares.map((r) => (r.at[0] ?? 0) + 1).join(', ')}`}
          .
        </p>
      )}
      {others.map((r) => (
        <p key={`${r.kind} ${r.at}`} className="flex items-center justify-between">
          {r.name}
          <button
            type="button"
            className="min-h-6 min-w-6 text-patina"
            aria-label={`Take back: ${r.name}`}
            onClick={() => act(mark(plane.id, r.kind, r.at, false))}
          >
            ×
          </button>
        </p>
      ))}
    </div>
  );
}

interface EdgeToolsProps {
  plane: RoofPlane;
  seen: PlaneSurvey;
  edge: number;
  onDone: () => void;
}

function EdgeTools({ plane, seen, edge, onDone }: EdgeToolsProps) {
  const { act } = useJob();
  const view = seen.edges[edge];
  const far = (edge + 1) % seen.corners.length;
  if (!view) return null;
  return (
    <div className="flex shrink-0 items-center gap-1.5 border-t border-rule pt-1.5">
      <Choice
        label={`Kind of ${view.name}`}
        value={view.kind}
        items={EDGE_KINDS.map((kind) => ({ value: kind, label: kind }))}
        onChange={(kind) =>
          act({
            kind: 'set-edge-kind',
            plane_id: plane.id,
            edge,
            edge_kind: kind as Schemas['EdgeKind'],
          })
        }
      />
      <Button
        onClick={() => {
          act({ kind: 'add-corner', plane_id: plane.id, edge });
          onDone();
        }}
      >
        Corner in it
      </Button>
      {far >= 2 && seen.corners.length > 3 && (
        <Button
          aria-label={`Take corner ${far + 1} out`}
          onClick={() => {
            act({ kind: 'remove-corner', plane_id: plane.id, corner: far });
            onDone();
          }}
        >
          Corner {far + 1} out
        </Button>
      )}
    </div>
  );
}
