/** What mounts stand on, as it was found: the plan is solved again at each answer. */
import type { RoofPlane, Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { StructureChoice, StructureLength } from '@/plan/StructureFields';
import { Card } from '@/ui/Card';
import { TypedField } from '@/ui/TypedField';
import { formatTape } from '@/units/length';

interface FoundCardProps {
  plane: RoofPlane;
  racked: Schemas['PlaneRackingView'];
}

/** Of each support how far apart they are and where the first one lies. */
const EVENLY = {
  seam: ['seam_spacing', 'Seams every', 'first_rib', 'First seam'],
  rib: ['rib_spacing', 'Ribs every', 'first_rib', 'First rib'],
  purlin: ['purlin_spacing', 'Purlins every', 'first_purlin', 'First from eave'],
  rafter: ['rafter_spacing', 'Spacing', 'first_rafter', 'First from left'],
} as const;

export function FoundCard({ plane, racked }: FoundCardProps) {
  const { job, edit } = useJob();
  const support = racked.support in EVENLY ? (racked.support as keyof typeof EVENLY) : 'rafter';
  const [every, everyLabel, first, firstLabel] = EVENLY[support];
  const found = plane.structure.found_rafters
    .map((f) => `${f.at.typed}${f.usable ? '' : ' x'}`)
    .join('; ');
  return (
    <Card title="What I found" scrolls className="w-[236px] shrink-0">
      {support === 'rafter' && (
        <>
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
          <p className="mt-1 mb-1 text-xs text-ink-2">
            From the left edge, parted by semicolons; an x behind one no mount may stand on. Empty:
            even spacing.
          </p>
        </>
      )}
      <div className="flex flex-col gap-1">
        <StructureChoice plane={plane} field="covering" />
        <StructureLength plane={plane} field={every} label={everyLabel} />
        <StructureLength plane={plane} field={first} label={firstLabel} />
      </div>
      {racked.supports_m.length > 0 && (
        <p className="mt-1 text-xs">
          Planned on {racked.supports_m.length}: {formatTape(racked.supports_m[0] ?? 0, job.unit)}{' '}
          to {formatTape(racked.supports_m.at(-1) ?? 0, job.unit)}
        </p>
      )}
    </Card>
  );
}
