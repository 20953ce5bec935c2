/** An obstruction that can be taken hold of: dragged, nudged with the arrows, chosen. */
import type { PointerEvent } from 'react';
import type { Schemas } from '@/api/client';
import { type Camera, toScreen } from '@/drawing/camera';
import { type DrawnObstruction, ObstructionMark } from '@/drawing/RoofOutline';
import { useDrag } from '@/drawing/useDrag';
import { HELD_LOOK, useHold } from '@/drawing/useHold';
import { useJob } from '@/plan/JobContext';

interface ObstructionGripProps {
  camera: Camera;
  planeId: string;
  obstruction: Schemas['Obstruction'];
  drawn: DrawnObstruction;
  chosen: boolean;
  onChoose: () => void;
}

const to = (stepM: number) => (metres: number) => Math.round(metres / stepM) * stepM;

export function ObstructionGrip({
  camera,
  planeId,
  obstruction,
  drawn,
  chosen,
  onChoose,
}: ObstructionGripProps) {
  const { act } = useJob();
  const move = (dxM: number, dyM: number, round: (metres: number) => number) =>
    act({
      kind: 'move-obstruction',
      plane_id: planeId,
      obstruction_id: obstruction.id,
      left_m: round(drawn.leftM + dxM),
      bottom_m: round(drawn.bottomM + dyM),
    });
  const drag = useDrag((_, dxPx, dyPx) =>
    move(dxPx / camera.pxPerM, -dyPx / camera.pxPerM, to(0.01)),
  );
  const grip = drag(obstruction.id);
  const { hold, told } = useHold((_, { dxM, dyM }) => void move(dxM, dyM, to(0.001)));
  const shift = drawn.round ? drawn.widthM / 2 : 0;
  const corner = toScreen(camera, {
    xM: drawn.leftM - shift,
    yM: drawn.bottomM - shift + drawn.depthM,
  });
  const side = (metres: number) => Math.max(metres * camera.pxPerM, 6);
  return (
    <g
      role="button"
      data-stop=""
      tabIndex={-1}
      aria-pressed={chosen}
      aria-label={told(
        obstruction.id,
        `${obstruction.name}, ${obstruction.left.typed} from the left, ${obstruction.bottom.typed} up`,
      )}
      {...grip}
      {...hold(obstruction.id)}
      onPointerDown={(event: PointerEvent<SVGGElement>) => {
        onChoose();
        grip.onPointerDown(event);
      }}
      onFocus={onChoose}
      className={`cursor-grab outline-none active:cursor-grabbing ${HELD_LOOK}`}
    >
      <rect
        x={corner.xPx - 10}
        y={corner.yPx - 10}
        width={side(drawn.widthM) + 20}
        height={side(drawn.depthM) + 20}
        fill="transparent"
      />
      <ObstructionMark camera={camera} obstruction={drawn} />
      {chosen && (
        <rect
          x={corner.xPx - 4}
          y={corner.yPx - 4}
          width={side(drawn.widthM) + 8}
          height={side(drawn.depthM) + 8}
          rx="3"
          fill="none"
          stroke="var(--color-copper)"
          strokeWidth="2"
        />
      )}
    </g>
  );
}
