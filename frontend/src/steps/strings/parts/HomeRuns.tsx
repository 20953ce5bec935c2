/** Boxes on a plane, drawn to where they are, and the home runs of strings' ends to them. */
import type { Schemas } from '@/api/client';
import { type Camera, toPlane, toScreen } from '@/drawing/camera';
import { threadOf } from '@/drawing/threads';
import { useDrag } from '@/drawing/useDrag';
import { HELD_LOOK, useHold } from '@/drawing/useHold';
import { sizeOf } from '@/plan/modules';
import { formatLength, type LengthUnit } from '@/units/length';

const BOX_PX = 20;
/** Runs lie side by side, so that each can be told from the next. */
const LANE_PX = 3;
const RAIL_FRAC = 0.1;

interface RunsProps {
  camera: Camera;
  planeId: string;
  array: Schemas['PlaneArray'];
  module: Schemas['ModuleSheet'];
  strings: readonly Schemas['ModuleString'][];
  boxes: readonly Schemas['BoxView'][];
}

/** The conductors, under the threads: positive ends whole, negative ones dashed. */
export function HomeRuns({ camera, planeId, array, module, strings, boxes }: RunsProps) {
  const startOf = (id: string) => {
    const m = array.modules.find((placed) => placed.id === id);
    if (!m) return null;
    const { widthM, heightM } = sizeOf(module, m.orientation, array.leg_tilt_deg);
    return {
      ...toScreen(camera, { xM: m.x_m + widthM / 2, yM: m.y_m + heightM / 2 }),
      // Cable lies on the lower rail, clear of the threads.
      railPx: toScreen(camera, { xM: m.x_m, yM: m.y_m + heightM * RAIL_FRAC }).yPx,
    };
  };
  return (
    <g pointerEvents="none" aria-hidden="true">
      {boxes
        .filter(({ box }) => box.plane_id === planeId)
        .flatMap(({ box, runs }) =>
          runs.map((run, lane) => {
            const from = startOf(run.module_id);
            if (!from) return null;
            const at = toScreen(camera, { xM: box.x_m, yM: box.y_m });
            const { colour } = threadOf(strings.findIndex((s) => s.tag === run.tag));
            const shift = (lane - (runs.length - 1) / 2) * LANE_PX;
            const [x, y] = [at.xPx + shift, from.railPx + shift];
            return (
              <polyline
                key={`${box.id} ${run.tag}${run.positive}`}
                points={`${from.xPx},${from.yPx} ${from.xPx},${y} ${x},${y} ${x},${at.yPx}`}
                fill="none"
                stroke={colour}
                strokeWidth="1.5"
                strokeDasharray={run.positive ? undefined : '3 3'}
              />
            );
          }),
        )}
    </g>
  );
}

interface BoxesProps {
  camera: Camera;
  planeId: string;
  boxes: readonly Schemas['BoxView'][];
  unit: LengthUnit;
  onMove: (boxId: string, xM: number, yM: number) => Promise<unknown>;
  onRemove: (boxId: string) => void;
}

/** The boxes, over everything: drawn to their place, with their count of conductors. */
export function Boxes({ camera, planeId, boxes, unit, onMove, onRemove }: BoxesProps) {
  const mine = boxes.filter(({ box }) => box.plane_id === planeId);
  const drag = useDrag((id, dxPx, dyPx) => {
    const view = mine.find(({ box }) => box.id === id);
    if (!view) return Promise.resolve();
    const from = toScreen(camera, { xM: view.box.x_m, yM: view.box.y_m });
    const to = toPlane(camera, { xPx: from.xPx + dxPx, yPx: from.yPx + dyPx });
    return onMove(id, to.xM, to.yM);
  });
  const { hold, told: named } = useHold((id, { dxM, dyM }) => {
    const held = mine.find(({ box }) => box.id === id);
    if (held) void onMove(id, held.box.x_m + dxM, held.box.y_m + dyM);
  });
  return mine.map(({ box, runs, length_m }, index) => {
    const at = toScreen(camera, { xM: box.x_m, yM: box.y_m });
    const told = `${runs.length} conductors and the ground, ${formatLength(length_m, unit)}`;
    const held = hold(box.id);
    return (
      <g
        key={box.id}
        role="button"
        data-stop=""
        tabIndex={-1}
        aria-label={named(box.id, `Box ${index + 1}: ${told}; Delete takes it away`)}
        className={`cursor-grab outline-offset-2 ${HELD_LOOK}`}
        {...drag(box.id)}
        {...held}
        onKeyDown={(event) => {
          held.onKeyDown(event);
          if (event.key === 'Delete') onRemove(box.id);
        }}
      >
        <title>{told}</title>
        <rect
          x={at.xPx - BOX_PX / 2}
          y={at.yPx - BOX_PX / 2}
          width={BOX_PX}
          height={BOX_PX}
          rx="3"
          fill="var(--color-sheet)"
          stroke="var(--color-ink)"
          strokeWidth="2"
        />
        <text
          x={at.xPx}
          y={at.yPx + 4.5}
          fontSize="13"
          fontWeight="600"
          textAnchor="middle"
          fill="var(--color-ink)"
        >
          {runs.length}
        </text>
      </g>
    );
  });
}
