/** Circuits: the way of every cable on the site plan, and what each circuit is made of. */
import { useState } from 'react';
import type { Schemas } from '@/api/client';
import { Pane } from '@/drawing/Pane';
import { pathOf } from '@/drawing/RoofGround';
import { useJob } from '@/plan/JobContext';
import type { PlaneSurvey } from '@/plan/scene';
import { GEAR, GearMark } from '@/plan/site/GearMark';
import { PlaneLabel, PlaneOnSite } from '@/plan/site/PlaneOnSite';
import { LotLine, NorthAndScale } from '@/plan/site/SiteGround';
import { extentOf, pointOf } from '@/plan/site/siteFrame';
import { Board } from '@/ui/Board';
import { useSame } from '@/ui/useSame';
import { CableWays } from './CableWays';
import { CircuitsCard } from './CircuitsCard';
import { drawnOf } from './drawnWay';
import { FieldsCard } from './FieldsCard';
import { WaysCard } from './WaysCard';

type Leg = Schemas['LegView'];

export function CircuitsView({ found }: { found: Schemas['CircuitsView'] }) {
  const { state, job, option, survey, act } = useJob();
  const [chosen, setChosen] = useState('');
  const { service, lot_lines } = job.survey;
  // What cables pass, not the whole lot.
  const passed = found.legs.flatMap((l) => l.pieces.flatMap((p) => p.points.map(pointOf)));
  const under = survey.planes.filter((p) =>
    option.arrays.some((a) => a.plane_id === p.plane_id && a.modules.length > 0),
  );
  const roofs = under.flatMap((p) => p.site.map((c) => ({ xM: c.east_m, yM: c.north_m })));
  const points = useSame(passed.length > 0 ? [...passed, ...roofs] : extentOf(state));
  const seen = survey.planes as PlaneSurvey[];
  const set = (leg: Leg, segments: Schemas['DrawnSegment'][]) =>
    act({ kind: 'set-route', option_id: option.id, leg: leg.id, segments });
  const leg = found.legs.find((l) => l.id === chosen) ?? found.legs[0];
  return (
    <>
      <Pane
        points={points}
        padPx={{ left: 60, right: 70, top: 50, bottom: 50 }}
        label="Ways of the cables"
        zoomable
      >
        {({ camera, widthPx, heightPx }) => (
          <>
            <g pointerEvents="none">
              {seen.map((plane) => (
                <PlaneOnSite key={plane.plane_id} camera={camera} seen={plane} chosen={false} />
              ))}
              {found.modules.map((ring) => (
                <polygon
                  key={JSON.stringify(ring[0])}
                  points={pathOf(camera, ring.map(pointOf))}
                  fill="var(--color-patina-wash)"
                  stroke="var(--color-ink-3)"
                  strokeWidth="0.8"
                />
              ))}
              {lot_lines.map((line) => (
                <LotLine key={line.id} camera={camera} line={line} />
              ))}
              {job.survey.planes.map((plane, i) => {
                const its = seen[i];
                return (
                  its && <PlaneLabel key={plane.id} camera={camera} plane={plane} seen={its} />
                );
              })}
            </g>
            <CableWays
              camera={camera}
              legs={found.legs}
              chosen={leg?.id ?? ''}
              onChoose={setChosen}
              onMove={(moved, n, to) =>
                set(
                  moved,
                  // A bend that is drawn elsewhere is drawn: a typed length no longer holds.
                  drawnOf(moved).map((s, i) => (i === n ? { ...s, to, length: '' } : s)),
                )
              }
            />
            <g pointerEvents="none">
              {GEAR.map(([gear, title, letter]) => {
                const at = service[gear];
                if (!at) return null;
                return (
                  <g key={gear}>
                    <title>{title}</title>
                    <GearMark camera={camera} letter={letter} at={at} chosen={false} />
                  </g>
                );
              })}
            </g>
            <NorthAndScale camera={camera} widthPx={widthPx} heightPx={heightPx} unit={job.unit} />
          </>
        )}
      </Pane>
      <Board heightPx={238}>
        <CircuitsCard found={found} />
        <WaysCard found={found} leg={leg} onChoose={setChosen} onSet={set} />
        <FieldsCard found={found} />
      </Board>
    </>
  );
}
