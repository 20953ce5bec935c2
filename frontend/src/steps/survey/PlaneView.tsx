/** One plane to scale: sketched, taped on the drawing, with all that stands on it. */
import { useState } from 'react';
import type { RoofPlane } from '@/api/client';
import type { PointM } from '@/drawing/camera';
import { PlaneCanvas } from '@/drawing/PlaneCanvas';
import { ToolHint } from '@/drawing/ToolHint';
import { useJob } from '@/plan/JobContext';
import { type PlaneSurvey, sceneOf } from '@/plan/scene';
import { Board } from '@/ui/Board';
import { TabbedCard } from '@/ui/TabbedCard';
import { useKeys } from '@/ui/useKeys';
import { obstructionTitle } from './obstructionKinds';
import { ClosingCard } from './parts/ClosingCard';
import { Corners } from './parts/Corners';
import { DrawnPoints } from './parts/DrawnPoints';
import { EdgeHits } from './parts/EdgeHits';
import { NotesFace } from './parts/NotesFace';
import { ObstructionGrip } from './parts/ObstructionGrip';
import { OffsetFields } from './parts/OffsetFields';
import { OnItFace } from './parts/OnItFace';
import { ReadingFields, ReadingLines } from './parts/OutlineReadings';
import { PlaneFace } from './parts/PlaneFace';
import { PlaneMenus } from './parts/PlaneMenus';
import { PlaneToolbar } from './parts/PlaneToolbar';
import { ReadingsCard } from './parts/ReadingsCard';
import { UnderItFace } from './parts/UnderItFace';
import { ZoneReason } from './parts/ZoneReason';
import {
  clicked,
  LOOK,
  type Outcome,
  type PlaneClick,
  type PlaneTool,
  toolHint,
  type Wanted,
} from './planeTool';
import type { SurveyViewProps } from './views';

interface PlaneViewProps extends SurveyViewProps {
  plane: RoofPlane;
  seen: PlaneSurvey;
}

export function PlaneView({ plane, seen, views }: PlaneViewProps) {
  const { state, report, act } = useJob();
  const [tool, setTool] = useState<PlaneTool>(LOOK);
  const [hover, setHover] = useState<PointM | null>(null);
  const [wanted, setWanted] = useState<Wanted | null>(null);
  const [zone, setZone] = useState<PointM[] | null>(null);
  const [chosenId, setChosenId] = useState('');
  const [edge, setEdge] = useState<number | null>(null);
  const [face, setFace] = useState('plane');
  const scene = sceneOf(plane, state, report);
  const chosen = plane.obstructions.find((o) => o.id === chosenId);

  const take = (next: PlaneTool) => {
    setTool(next.kind === tool.kind && next.kind !== 'place' ? LOOK : next);
    setWanted(null);
    setZone(null);
  };
  const settle = (outcome: Outcome) => {
    setTool(outcome.tool);
    if (outcome.edit) act(outcome.edit);
    if (outcome.wanted) setWanted(outcome.wanted);
    if (outcome.zone) setZone(outcome.zone);
  };
  const squares = seen.readings.filter((r) => r.kind === 'right_angle').map((r) => r.at[0] ?? -1);
  const click = (what: PlaneClick) => {
    if (tool.kind === 'look') {
      if (what.on === 'edge') setEdge(what.edge === edge ? null : what.edge);
      else {
        setEdge(null);
        choose('');
      }
      return;
    }
    settle(clicked(plane.id, tool, what, squares));
  };
  const choose = (id: string) => {
    setChosenId(id);
    if (id) setFace('on-it');
  };
  const remove = () => {
    if (chosen) act({ kind: 'remove-obstruction', plane_id: plane.id, obstruction_id: chosen.id });
    else if (plane.keep_outs.some((k) => k.id === chosenId))
      act({ kind: 'remove-keep-out', plane_id: plane.id, keep_out_id: chosenId });
    setChosenId('');
  };
  const finish = () => click({ on: 'done' });
  const letGo = () => {
    setTool(LOOK);
    setWanted(null);
    setZone(null);
    if (tool.kind === 'look') choose('');
  };
  useKeys({
    b: () => take({ kind: 'sketch', points: [] }),
    d: () => take({ kind: 'diagonal', from: null }),
    f: () => take({ kind: 'offset', corner: null }),
    q: () => take({ kind: 'square' }),
    v: () => take({ kind: 'place', what: 'vent' }),
    c: () => take({ kind: 'place', what: 'chimney' }),
    s: () => take({ kind: 'place', what: 'skylight' }),
    k: () => take({ kind: 'keep-out', points: [] }),
    Enter: finish,
    Escape: letGo,
    Delete: remove,
    Backspace: remove,
  });

  const drawing = tool.kind === 'sketch' || tool.kind === 'keep-out' ? tool.points : null;
  const wantsCorner =
    tool.kind === 'diagonal' ||
    tool.kind === 'square' ||
    ((tool.kind === 'offset' || tool.kind === 'along' || tool.kind === 'in-line') &&
      tool.corner === null);
  const quiet = drawing !== null || tool.kind === 'place' || tool.kind === 'old-array';
  const pickedCorner = tool.kind === 'diagonal' ? tool.from : 'corner' in tool ? tool.corner : null;
  const hint = toolHint(tool, tool.kind === 'place' ? obstructionTitle(tool.what) : '');

  return (
    <>
      <PlaneToolbar plane={plane} tool={tool} onTake={take} views={views} />
      <PlaneMenus plane={plane} seen={seen} />
      <PlaneCanvas
        scene={scene}
        label={`${plane.name}, to scale`}
        padPx={84}
        zoomable
        ownObstructions
        cursor={tool.kind === 'look' ? 'default' : 'crosshair'}
        onSpot={(spot) => click({ on: 'spot', spot })}
        onHover={drawing ? setHover : undefined}
        overlay={(camera) => (
          <>
            {!quiet && (
              <ReadingFields
                camera={camera}
                plane={plane}
                seen={seen}
                wanted={wanted}
                onSettled={() => setWanted(null)}
              />
            )}
            {chosen && !quiet && (
              <OffsetFields camera={camera} plane={plane} seen={seen} obstruction={chosen} />
            )}
            {zone && (
              <ZoneReason
                camera={camera}
                plane={plane}
                ring={zone}
                onSettled={() => setZone(null)}
              />
            )}
            <ToolHint hint={hint} place="bottom" />
          </>
        )}
      >
        {(camera) => (
          <>
            {!quiet && <ReadingLines camera={camera} seen={seen} />}
            {!quiet && (
              <EdgeHits
                camera={camera}
                seen={seen}
                picked={tool.kind === 'parallel' ? tool.edge : edge}
                onEdge={(n) => click({ on: 'edge', edge: n })}
              />
            )}
            {plane.obstructions.map((o) => {
              const drawn = scene.obstructions.find((d) => d.id === o.id);
              return (
                drawn && (
                  <ObstructionGrip
                    key={o.id}
                    camera={camera}
                    planeId={plane.id}
                    obstruction={o}
                    drawn={drawn}
                    chosen={o.id === chosenId}
                    onChoose={() => choose(o.id)}
                  />
                )
              );
            })}
            {!quiet && (
              <Corners
                camera={camera}
                plane={plane}
                seen={seen}
                wanted={wantsCorner}
                picked={pickedCorner}
                onCorner={(n) => click({ on: 'corner', corner: n })}
              />
            )}
            {(drawing ?? zone) && (
              <DrawnPoints
                camera={camera}
                points={drawing ?? zone ?? []}
                hover={drawing ? hover : null}
              />
            )}
          </>
        )}
      </PlaneCanvas>
      <Board heightPx={236}>
        <ReadingsCard plane={plane} seen={seen} edge={edge} onEdge={setEdge} />
        <ClosingCard plane={plane} seen={seen} onWanted={setWanted} />
        <TabbedCard
          label="About the plane"
          value={face}
          onValueChange={setFace}
          className="min-w-[330px] grow basis-0"
          faces={[
            { id: 'plane', title: 'This plane', body: <PlaneFace plane={plane} seen={seen} /> },
            {
              id: 'on-it',
              title: 'Obstructions',
              aside: String(
                plane.obstructions.length + plane.keep_outs.length + plane.existing.length || '',
              ),
              body: (
                <OnItFace plane={plane} seen={seen} chosenId={chosenId} onChoose={setChosenId} />
              ),
            },
            { id: 'under-it', title: 'Structure', body: <UnderItFace plane={plane} /> },
            {
              id: 'notes',
              title: 'Notes',
              body: <NotesFace plane={plane} obstruction={chosen} />,
            },
          ]}
        />
      </Board>
    </>
  );
}
