/** Survey: one plane to scale, whose dimensions on the drawing are the fields. */
import { type PointerEvent, useRef, useState } from 'react';
import type { RoofPlane, Schemas } from '@/api/client';
import { type Camera, toPlane } from '@/drawing/camera';
import { PlaneCanvas } from '@/drawing/PlaneCanvas';
import { useJob } from '@/plan/JobContext';
import { PlaneTabs } from '@/plan/PlaneTabs';
import { sceneOf } from '@/plan/scene';
import { Button } from '@/ui/Button';
import { Board, Toolbar } from '@/ui/Card';
import { useKeys } from '@/ui/useKeys';
import { ObstructionGrip } from './parts/ObstructionGrip';
import { ObstructionsCard } from './parts/ObstructionsCard';
import { OffsetFields } from './parts/OffsetFields';
import { OutlineFields, OutlineLines } from './parts/OutlineDimensions';
import { PlaneCard } from './parts/PlaneCard';

type Kind = Schemas['ObstructionKind'];
type Tool = Kind | null;

const TOOLS: { kind: Kind; title: string; hint?: string }[] = [
  { kind: 'vent', title: 'Vent', hint: 'V' },
  { kind: 'chimney', title: 'Chimney', hint: 'C' },
  { kind: 'skylight', title: 'Skylight', hint: 'S' },
  { kind: 'flue', title: 'Flue' },
  { kind: 'box-vent', title: 'Box vent' },
  { kind: 'dish', title: 'Dish' },
  { kind: 'hatch', title: 'Hatch' },
  { kind: 'other', title: 'Other' },
];

export default function SurveyStep() {
  const { plane } = useJob();
  if (!plane) return <p className="p-6 text-sm text-ink-2">This job has no roof plane.</p>;
  return <PlaneSurvey key={plane.id} plane={plane} />;
}

function PlaneSurvey({ plane }: { plane: RoofPlane }) {
  const { report, act } = useJob();
  const [tool, setTool] = useState<Tool>(null);
  const [chosenId, setChosenId] = useState('');
  const camera = useRef<Camera | null>(null);
  const scene = sceneOf(plane, report);
  const chosen = plane.obstructions.find((o) => o.id === chosenId);

  const take = (wanted: Tool) => setTool(tool === wanted ? null : wanted);
  const remove = () => {
    if (!chosen) return;
    act({ kind: 'remove-obstruction', plane_id: plane.id, obstruction_id: chosen.id });
    setChosenId('');
  };
  const letGo = () => (tool ? setTool(null) : setChosenId(''));
  useKeys({
    v: () => take('vent'),
    c: () => take('chimney'),
    s: () => take('skylight'),
    Escape: letGo,
    Delete: remove,
    Backspace: remove,
  });

  const place = (event: PointerEvent<SVGSVGElement>) => {
    if (!tool || !camera.current) {
      setChosenId('');
      return;
    }
    const box = event.currentTarget.getBoundingClientRect();
    const spot = toPlane(camera.current, {
      xPx: event.clientX - box.left,
      yPx: event.clientY - box.top,
    });
    act({
      kind: 'add-obstruction',
      plane_id: plane.id,
      obstruction_kind: tool,
      left_m: Math.round(spot.xM * 100) / 100,
      bottom_m: Math.round(spot.yM * 100) / 100,
    });
    setTool(null);
  };

  return (
    <>
      <Toolbar>
        {TOOLS.map(({ kind, title, hint }) => (
          <Button
            key={kind}
            {...(hint ? { hint } : {})}
            aria-pressed={tool === kind}
            weight={tool === kind ? 'pressed' : 'plain'}
            onClick={() => take(kind)}
          >
            {title}
          </Button>
        ))}
        <span className="ml-1 text-sm text-ink-2" role="status">
          {tool
            ? `Click where the ${TOOLS.find((t) => t.kind === tool)?.title.toLowerCase()} stands.`
            : "Figures read 12.19, 12190mm, 40'."}
        </span>
      </Toolbar>
      <PlaneTabs survey />
      <PlaneCanvas
        scene={scene}
        label={`${plane.name}, to scale`}
        padPx={84}
        ownObstructions
        svg={{ onPointerDown: place, style: { cursor: tool ? 'crosshair' : 'default' } }}
        overlay={(view) => (
          <>
            <OutlineFields camera={view} plane={plane} />
            {chosen && <OffsetFields camera={view} plane={plane} obstruction={chosen} />}
          </>
        )}
      >
        {(view) => {
          camera.current = view;
          return (
            <>
              <OutlineLines camera={view} plane={plane} />
              {plane.obstructions.map((o) => (
                <ObstructionGrip
                  key={o.id}
                  camera={view}
                  planeId={plane.id}
                  obstruction={o}
                  chosen={o.id === chosenId}
                  onChoose={() => setChosenId(o.id)}
                />
              ))}
            </>
          );
        }}
      </PlaneCanvas>
      <Board heightPx={236}>
        <PlaneCard plane={plane} />
        <ObstructionsCard
          plane={plane}
          chosenId={chosenId}
          onChoose={setChosenId}
          onRemove={remove}
        />
      </Board>
    </>
  );
}
