/** Over seams, ribs or beams: which module edges a bracket can take hold of. */
import type { Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { Button } from '@/ui/Button';
import { figure } from '@/units/format';
import { formatLength } from '@/units/length';

interface BracketsFaceProps {
  planeId: string;
  report: Schemas['SeatReport'] | undefined;
  problem: string;
}

export function BracketsFace({ planeId, report, problem }: BracketsFaceProps) {
  const { job, option, act } = useJob();
  if (problem) return <p className="text-sm text-stop">{problem}</p>;
  if (!report) return null;
  const total = report.modules.length;
  return (
    <div className="flex flex-col items-start gap-1.5 text-sm">
      {total === 0 ? (
        <p>Lay modules first: brackets sit {report.lines_told}.</p>
      ) : (
        <>
          <p>
            <strong>
              {report.held} of {total} modules
            </strong>{' '}
            can be held without rails, by two opposite edges, {report.lines_told}.
          </p>
          <p className="text-xs">
            {report.edges_on} of {report.edges} upright edges fall on a line, within{' '}
            {formatLength(report.reach_m, job.unit)}.
            {report.covers !== null &&
              ` The array lies over ${figure(report.covers, 1)} sheets in width.`}
            {report.held < total && ' The others want rails across the lines.'}
          </p>
          <Button
            onClick={() =>
              void act({ kind: 'set-on-lines', option_id: option.id, plane_id: planeId })
            }
          >
            Set rows on the lines
          </Button>
        </>
      )}
      <p className="text-xs text-ink-2">
        Dragged modules catch on the lines. Clamp zones are in the module’s manual; how many
        brackets the wind asks for is an engineer’s. Metal is slippery: be tied on.
      </p>
    </div>
  );
}
