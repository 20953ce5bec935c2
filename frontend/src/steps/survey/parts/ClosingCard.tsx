/** Does the outline close: by how much it misses, what is in doubt, what would settle it. */
import type { RoofPlane } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import type { PlaneSurvey } from '@/plan/scene';
import { Button } from '@/ui/Button';
import { Card } from '@/ui/Card';
import { Mark, type Shape } from '@/ui/Mark';
import { formatSmall } from '@/units/length';
import type { Wanted } from '../planeTool';

const SHAPE: Record<PlaneSurvey['closing'], Shape> = {
  open: 'ring',
  unchecked: 'circle',
  good: 'circle',
  fair: 'circle',
  poor: 'triangle',
};

interface ClosingCardProps {
  plane: RoofPlane;
  seen: PlaneSurvey;
  onWanted: (wanted: Wanted) => void;
}

export function ClosingCard({ plane, seen, onWanted }: ClosingCardProps) {
  const { act, job } = useJob();
  const suspect = seen.readings.find((r) => r.suspect);
  const doubtful = seen.doubt !== '';
  const worst = Math.max(...seen.corners.map((c) => c.sd_m ?? 0));
  return (
    <Card
      title="Does it close?"
      aside={<Mark shape={doubtful ? 'triangle' : SHAPE[seen.closing]} />}
      scrolls
      className="flex w-[176px] shrink-0 flex-col gap-1"
    >
      <p className="text-sm first-letter:uppercase">{seen.closing_text}.</p>
      {seen.closing !== 'open' && !doubtful && (
        <p className="text-xs text-ink-2">
          Corners known to {formatSmall(worst, job.unit)} or better.
        </p>
      )}
      {seen.to_close && <p className="text-sm text-warn">{seen.to_close}</p>}
      {seen.would_fix.slice(0, 2).map(({ a, b }) => (
        <span key={`${a} ${b}`}>
          <Button onClick={() => onWanted({ reading: 'diagonal', at: [a, b] })}>
            Type diagonal {a + 1}–{b + 1}
          </Button>
        </span>
      ))}
      {doubtful && <p className="text-sm text-warn">{seen.doubt}</p>}
      {suspect && (
        <span className="flex flex-wrap gap-1.5">
          <Button
            weight="main"
            onClick={() =>
              act({
                kind: 'leave-out-reading',
                plane_id: plane.id,
                reading: suspect.kind,
                at: suspect.at,
                out: true,
              })
            }
          >
            Leave it out
          </Button>
        </span>
      )}
    </Card>
  );
}
