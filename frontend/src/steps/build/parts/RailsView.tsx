/** Rails and mounts to scale on their plane, with what lands on each support, and the limits. */
import type { RoofPlane, Schemas } from '@/api/client';
import { PlaneCanvas } from '@/drawing/PlaneCanvas';
import { useJob } from '@/plan/JobContext';
import { moduleOn } from '@/plan/modules';
import { sceneOf } from '@/plan/scene';
import { Board } from '@/ui/Board';
import { Empty } from '@/ui/States';
import { useSame } from '@/ui/useSame';
import { formatTape } from '@/units/length';
import { EdgeZones } from './EdgeZones';
import { FoundCard } from './FoundCard';
import { LimitsCard } from './LimitsCard';
import { ModulesUnder } from './ModulesUnder';
import { Piles } from './Piles';
import { PlaneCard } from './PlaneCard';
import { Rails } from './Rails';
import { SectionCard } from './SectionCard';
import { SupportBar } from './SupportBar';

interface RailsViewProps {
  plane: RoofPlane;
  racking: Schemas['RackingView'];
  behind: boolean;
}

export function RailsView({ plane, racking, behind }: RailsViewProps) {
  const { state, job, option, report, act } = useJob();
  const scene = useSame(sceneOf(plane, state, report));
  const racked = racking.planes.find((p) => p.plane_id === plane.id);
  const array = option.arrays.find((a) => a.plane_id === plane.id);
  const module = moduleOn(job, option, plane.id);
  if (!racked || !array || !module) return <Empty>No module lies on {plane.name}.</Empty>;
  const pin = (rail: number, atM: number | null, insteadOfM: number | null) =>
    act({
      kind: 'pin-mount',
      option_id: option.id,
      plane_id: plane.id,
      rail,
      at_m: atM,
      instead_of_m: insteadOfM,
    });
  const offset = (offsetM: number) =>
    act({
      kind: 'set-racking-field',
      option_id: option.id,
      plane_id: plane.id,
      field: 'rail_offset',
      typed: formatTape(offsetM, job.unit),
    });
  return (
    <>
      <PlaneCanvas scene={scene} label={`Rails and mounts on ${plane.name}`} padPx={84} zoomable>
        {(camera) => (
          <>
            <EdgeZones camera={camera} edgeM={racked.edge_m} corners={scene.corners} />
            <ModulesUnder camera={camera} array={array} module={module} />
            {racked.ground ? (
              <Piles
                camera={camera}
                racked={racked}
                ground={racked.ground}
                edgeM={Math.max(...scene.corners.map((c) => c.xM))}
                unit={job.unit}
              />
            ) : (
              <>
                <SupportBar camera={camera} racked={racked} corners={scene.corners} />
                <Rails
                  camera={camera}
                  racked={racked}
                  corners={scene.corners}
                  unit={job.unit}
                  behind={behind}
                  onPin={pin}
                  onOffset={offset}
                />
              </>
            )}
          </>
        )}
      </PlaneCanvas>
      <Board heightPx={228}>
        <LimitsCard plane={plane} />
        <PlaneCard racked={racked} />
        {racked.ground ? (
          <SectionCard racked={racked} ground={racked.ground} />
        ) : (
          !plane.ground && <FoundCard plane={plane} racked={racked} />
        )}
      </Board>
    </>
  );
}
