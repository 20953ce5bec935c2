/** An obstruction that can be taken hold of: dragged, nudged with the arrows, chosen. */
import { type PointerEvent, useState } from 'react';
import type { Schemas } from '@/api/client';
import { type Camera, toScreen } from '@/drawing/camera';
import { type DrawnObstruction, ObstructionMark } from '@/drawing/RoofOutline';
import { useJob } from '@/plan/JobContext';

interface ObstructionGripProps {
  camera: Camera;
  planeId: string;
  obstruction: Schemas['Obstruction'];
  drawn: DrawnObstruction;
  chosen: boolean;
  onChoose: () => void;
}

interface Drag {
  fromX: number;
  fromY: number;
  dxM: number;
  dyM: number;
}

const NUDGES: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

const centimetre = (metres: number) => Math.round(metres * 100) / 100;

export function ObstructionGrip({
  camera,
  planeId,
  obstruction,
  drawn,
  chosen,
  onChoose,
}: ObstructionGripProps) {
  const { act } = useJob();
  const [drag, setDrag] = useState<Drag | null>(null);
  const shown = drag
    ? { ...drawn, leftM: drawn.leftM + drag.dxM, bottomM: drawn.bottomM + drag.dyM }
    : drawn;
  const move = (dxM: number, dyM: number, round: (m: number) => number) =>
    act({
      kind: 'move-obstruction',
      plane_id: planeId,
      obstruction_id: obstruction.id,
      left_m: round(drawn.leftM + dxM),
      bottom_m: round(drawn.bottomM + dyM),
    });

  const press = (event: PointerEvent<SVGGElement>) => {
    event.stopPropagation();
    onChoose();
    event.currentTarget.setPointerCapture(event.pointerId);
    setDrag({ fromX: event.clientX, fromY: event.clientY, dxM: 0, dyM: 0 });
  };
  const pull = (event: PointerEvent<SVGGElement>) => {
    if (!drag) return;
    setDrag({
      ...drag,
      dxM: (event.clientX - drag.fromX) / camera.pxPerM,
      dyM: (drag.fromY - event.clientY) / camera.pxPerM,
    });
  };
  const release = () => {
    if (drag && Math.hypot(drag.dxM, drag.dyM) * camera.pxPerM > 3)
      move(drag.dxM, drag.dyM, centimetre);
    setDrag(null);
  };

  const shift = drawn.round ? drawn.widthM / 2 : 0;
  const corner = toScreen(camera, {
    xM: shown.leftM - shift,
    yM: shown.bottomM - shift + shown.depthM,
  });
  const side = (metres: number) => Math.max(metres * camera.pxPerM, 6);
  return (
    <g
      role="button"
      tabIndex={0}
      aria-pressed={chosen}
      aria-label={`${obstruction.name}, ${obstruction.left.typed} from the left, ${obstruction.bottom.typed} up`}
      onPointerDown={press}
      onPointerMove={pull}
      onPointerUp={release}
      onPointerCancel={() => setDrag(null)}
      onFocus={onChoose}
      onKeyDown={(event) => {
        const nudge = NUDGES[event.key];
        if (!nudge) return;
        event.preventDefault();
        const stepM = event.shiftKey ? 0.01 : 0.1;
        move(nudge[0] * stepM, nudge[1] * stepM, (m) => Math.round(m * 1000) / 1000);
      }}
      style={{ cursor: drag ? 'grabbing' : 'grab' }}
      className="outline-none"
    >
      <rect
        x={corner.xPx - 10}
        y={corner.yPx - 10}
        width={side(shown.widthM) + 20}
        height={side(shown.depthM) + 20}
        fill="transparent"
      />
      <ObstructionMark camera={camera} obstruction={shown} />
      {chosen && (
        <rect
          x={corner.xPx - 4}
          y={corner.yPx - 4}
          width={side(shown.widthM) + 8}
          height={side(shown.depthM) + 8}
          rx="3"
          fill="none"
          stroke="var(--color-copper)"
          strokeWidth="2"
        />
      )}
    </g>
  );
}
