/** The corners of an outline: numbered, square or loose, with how far each is known. */
import type { PointerEvent } from 'react';
import type { RoofPlane } from '@/api/client';
import { type Camera, toScreen } from '@/drawing/camera';
import { useDrag } from '@/drawing/useDrag';
import { HELD_LOOK, useHold } from '@/drawing/useHold';
import { useJob } from '@/plan/JobContext';
import type { PlaneSurvey } from '@/plan/scene';
import { pressed } from '@/ui/pressable';
import { formatSmall } from '@/units/length';
import { cornerPx } from './outlineGeometry';

interface CornersProps {
  camera: Camera;
  plane: RoofPlane;
  seen: PlaneSurvey;
  /** A tool wants corners: a click is for it. */
  wanted: boolean;
  picked: number | null;
  onCorner: (corner: number) => void;
}

/** Shown once a corner is known worse than this; below it the ring would hide nothing. */
const WORTH_SHOWING_M = 0.03;

export function Corners({ camera, plane, seen, wanted, picked, onCorner }: CornersProps) {
  const { act, job } = useJob();
  const squares = new Set(
    seen.readings.filter((r) => r.kind === 'right_angle').map((r) => r.at[0] ?? -1),
  );
  const move = (corner: number, dxM: number, dyM: number) => {
    const at = seen.corners[corner];
    if (!at) return Promise.resolve();
    return act({
      kind: 'move-corner',
      plane_id: plane.id,
      corner,
      x_m: Math.round((at.x_m + dxM) * 1000) / 1000,
      y_m: Math.round((at.y_m + dyM) * 1000) / 1000,
    });
  };
  const drag = useDrag((corner, dxPx, dyPx) =>
    move(Number(corner), dxPx / camera.pxPerM, -dyPx / camera.pxPerM),
  );
  const { hold, told } = useHold((corner, { dxM, dyM }) => void move(Number(corner), dxM, dyM));
  return seen.corners.map((corner, i) => {
    const { xPx, yPx } = toScreen(camera, { xM: corner.x_m, yM: corner.y_m });
    const known = corner.loose
      ? 'loose'
      : corner.sd_m === null
        ? ''
        : `known to ${formatSmall(corner.sd_m, job.unit)}`;
    const mark = squares.has(i) ? ', drawn square' : '';
    return (
      <g
        // biome-ignore lint/suspicious/noArrayIndexKey: a corner is its index
        key={i}
        role="button"
        data-stop={wanted || corner.loose ? '' : undefined}
        tabIndex={-1}
        aria-label={told(String(i), `Corner ${i + 1}${mark}${known ? `, ${known}` : ''}`)}
        aria-pressed={picked === i}
        className={`outline-none [&:focus-visible>circle]:stroke-copper ${HELD_LOOK}`}
        style={{ cursor: wanted ? 'pointer' : corner.loose ? 'grab' : 'default' }}
        // A tool takes the click, not the press: a field it opens must keep the focus.
        {...(wanted || !corner.loose
          ? { onPointerDown: (event: PointerEvent) => event.stopPropagation() }
          : { ...drag(String(i)), ...hold(String(i)) })}
        onClick={() => wanted && onCorner(i)}
        {...(wanted ? { onKeyDown: pressed(() => onCorner(i)) } : {})}
      >
        {squares.has(i) && <SquareMark camera={camera} seen={seen} corner={i} />}
        {corner.sd_m !== null && corner.sd_m > WORTH_SHOWING_M && (
          <circle
            cx={xPx}
            cy={yPx}
            r={Math.max(corner.sd_m * 3 * camera.pxPerM, 13)}
            fill="none"
            stroke="var(--color-warn)"
            strokeDasharray="3 3"
          />
        )}
        <circle
          cx={xPx}
          cy={yPx}
          r={10.5}
          fill={corner.loose ? 'var(--color-warn-wash)' : 'var(--color-sheet)'}
          stroke={
            picked === i
              ? 'var(--color-copper)'
              : corner.loose
                ? 'var(--color-warn)'
                : 'var(--color-ink)'
          }
          strokeWidth={picked === i || wanted ? 2.5 : 1.2}
          strokeDasharray={corner.loose ? '3 2' : undefined}
        />
        <text x={xPx} y={yPx + 4.5} fontSize="12.5" fontWeight="600" textAnchor="middle">
          {i + 1}
        </text>
      </g>
    );
  });
}

/** The draughtsman's sign of a square corner, inside it. */
function SquareMark({
  camera,
  seen,
  corner,
}: {
  camera: Camera;
  seen: PlaneSurvey;
  corner: number;
}) {
  const count = seen.corners.length;
  const at = cornerPx(camera, seen.corners, corner);
  const towards = (other: number) => {
    const p = cornerPx(camera, seen.corners, other);
    const length = Math.hypot(p.xPx - at.xPx, p.yPx - at.yPx) || 1;
    return [((p.xPx - at.xPx) / length) * 19, ((p.yPx - at.yPx) / length) * 19] as const;
  };
  const [a, b] = [towards((corner + 1) % count), towards((corner + count - 1) % count)];
  return (
    <path
      d={`M${at.xPx + a[0]} ${at.yPx + a[1]} l${b[0]} ${b[1]} L${at.xPx + b[0]} ${at.yPx + b[1]}`}
      fill="none"
      stroke="var(--color-ink-2)"
      pointerEvents="none"
    />
  );
}
