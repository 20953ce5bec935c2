/** Rafters as they were found on the roof: typed in a row, the plan is solved again at once. */
import type { RoofPlane, Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { Card } from '@/ui/Card';
import { TypedField } from '@/ui/TypedField';
import { formatTape } from '@/units/length';

interface FoundCardProps {
  plane: RoofPlane;
  racked: Schemas['PlaneRackingView'];
}

export function FoundCard({ plane, racked }: FoundCardProps) {
  const { job, edit } = useJob();
  if (racked.support !== 'rafter' && racked.support !== '') return null;
  const found = plane.structure.found_rafters
    .map((f) => `${f.at.typed}${f.usable ? '' : ' x'}`)
    .join('; ');
  return (
    <Card title="What I found" scrolls className="w-[236px] shrink-0">
      <TypedField
        label="Rafters as found"
        value={found}
        placeholder={
          job.unit === 'ft' ? '0\' 11"; 2\' 11"; 4\' 10 1/2" x' : '0.28 m; 0.89 m; 1.49 m x'
        }
        width={206}
        align="left"
        tall
        commit={(lengths) => edit({ kind: 'set-found-rafters', plane_id: plane.id, lengths })}
      />
      <p className="mt-1 text-xs text-ink-2">
        From the left edge, parted by semicolons; an x behind one no mount may stand on. Empty: even
        spacing, as the survey has it.
      </p>
      {racked.supports_m.length > 0 && (
        <p className="mt-1 text-xs">
          Planned on {racked.supports_m.length}: {formatTape(racked.supports_m[0] ?? 0, job.unit)}{' '}
          to {formatTape(racked.supports_m.at(-1) ?? 0, job.unit)}
        </p>
      )}
    </Card>
  );
}
