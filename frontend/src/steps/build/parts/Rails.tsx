/**
 * Rails as bars with their mounts. A mount is drawn to another support, or taken in hand and moved
 * there by arrows; it is held in place then, and the others are planned anew round it.
 */
import type { Schemas } from '@/api/client';
import { type Camera, type PointM, toPlane, toScreen } from '@/drawing/camera';
import { useDrag } from '@/drawing/useDrag';
import { HELD_LOOK, useHold } from '@/drawing/useHold';
import { formatLength, formatTape, type LengthUnit } from '@/units/length';

type Racked = Schemas['PlaneRackingView'];
type Run = Schemas['RunView'];

const MOUNT_PX = 5.5;
/** Rails are 40 mm wide, never thinner than can be seen. */
const RAIL_M = 0.04;
const LEAST_RAIL_PX = 3;
const NEAR_EDGE_PX = 48;

interface RailsProps {
  camera: Camera;
  racked: Racked;
  corners: PointM[];
  unit: LengthUnit;
  onPin: (rail: number, atM: number | null, insteadOfM: number | null) => Promise<unknown>;
}

export function Rails({ camera, racked, corners, unit, onPin }: RailsProps) {
  const xs = corners.map((c) => toScreen(camera, c).xPx);
  const at = (run: Run, alongM: number): PointM =>
    racked.up_slope ? { xM: run.across_m, yM: alongM } : { xM: alongM, yM: run.across_m };
  const mounts = racked.runs.flatMap((run) =>
    run.mounts.map((mount) => ({ run, mount, id: `${run.name} ${mount.at_m}` })),
  );
  const of = (id: string) => mounts.find((m) => m.id === id);
  const to = (id: string, alongM: number) => {
    const taken = of(id);
    if (!taken) return Promise.resolve();
    const { run, mount } = taken;
    const free = racked.supports_m.filter((s) => s >= run.from_m && s <= run.to_m);
    const nearest = free.reduce(
      (best, s) => (Math.abs(s - alongM) < Math.abs(best - alongM) ? s : best),
      free[0] ?? mount.at_m,
    );
    if (Math.abs(nearest - mount.at_m) < 0.001 && mount.pinned) return Promise.resolve();
    return onPin(run.line, nearest, mount.at_m);
  };
  const drag = useDrag((id, dxPx, dyPx) => {
    const taken = of(id);
    if (!taken) return Promise.resolve();
    const from = toScreen(camera, at(taken.run, taken.mount.at_m));
    const spot = toPlane(camera, { xPx: from.xPx + dxPx, yPx: from.yPx + dyPx });
    return to(id, racked.up_slope ? spot.yM : spot.xM);
  });
  const { hold, told } = useHold((id, { dxM, dyM }) => {
    const taken = of(id);
    if (!taken) return;
    const way = Math.sign(racked.up_slope ? dyM : dxM);
    const { run, mount } = taken;
    const next = racked.supports_m
      .filter((s) => s >= run.from_m && s <= run.to_m && (s - mount.at_m) * way > 0.001)
      .sort((a, b) => (a - b) * way)[0];
    if (next !== undefined) void to(id, next);
  });
  return (
    <g>
      <g aria-hidden="true">
        {racked.runs.map((run) => (
          <RailBar
            key={run.name}
            run={run}
            camera={camera}
            at={at}
            unit={unit}
            // A run that another follows on its line is told at its start.
            roofPx={[Math.min(...xs), Math.max(...xs)]}
            before={racked.runs.some((r) => r.line === run.line && r.from_m > run.to_m)}
          />
        ))}
      </g>
      {mounts.map(({ run, mount, id }, index) => {
        const spot = toScreen(camera, at(run, mount.at_m));
        const words = [
          `Mount ${index + 1}, rail ${run.name}, ${racked.support} ${mount.support}`,
          formatTape(mount.at_m, unit),
          mount.shared && 'shared with the rail beside it',
          mount.pinned && 'held in place',
        ];
        const held = hold(id);
        return (
          <g
            key={id}
            role="button"
            data-stop=""
            tabIndex={-1}
            aria-label={told(id, words.filter(Boolean).join(', '))}
            className={`cursor-grab ${HELD_LOOK}`}
            {...drag(id)}
            {...held}
            onKeyDown={(event) => {
              held.onKeyDown(event);
              if (event.key === 'Delete' && mount.pinned) void onPin(run.line, null, mount.at_m);
            }}
          >
            <title>{words.filter(Boolean).join(', ')}</title>
            {/* As large as a finger or a pointer needs. */}
            <circle cx={spot.xPx} cy={spot.yPx} r="12" fill="transparent" />
            {mount.pinned ? (
              <rect
                x={spot.xPx - MOUNT_PX}
                y={spot.yPx - MOUNT_PX}
                width={2 * MOUNT_PX}
                height={2 * MOUNT_PX}
                fill="var(--color-copper)"
                stroke="var(--color-sheet)"
              />
            ) : (
              <circle
                cx={spot.xPx}
                cy={spot.yPx}
                r={MOUNT_PX}
                fill={mount.shared ? 'var(--color-sheet)' : 'var(--color-ink)'}
                stroke={mount.shared ? 'var(--color-ink)' : 'var(--color-sheet)'}
                strokeWidth={mount.shared ? 2.5 : 1}
              />
            )}
          </g>
        );
      })}
    </g>
  );
}

interface RailBarProps {
  run: Run;
  camera: Camera;
  at: (run: Run, alongM: number) => PointM;
  unit: LengthUnit;
  /** From where to where the roof reaches on the screen: names stand beside it, not on its edge. */
  roofPx: [number, number];
  before: boolean;
}

function RailBar({ run, camera, at, unit, roofPx, before }: RailBarProps) {
  const from = toScreen(camera, at(run, run.from_m));
  const to = toScreen(camera, at(run, run.to_m));
  const spans = run.mounts.slice(1).map((m, i) => m.at_m - (run.mounts[i]?.at_m ?? 0));
  const widest = Math.max(0, ...spans);
  const place = spans.indexOf(widest);
  const limit = run.limits_m[place];
  const [leftPx, rightPx] = roofPx;
  const startPx = from.xPx - leftPx < NEAR_EDGE_PX ? leftPx - 6 : from.xPx - 9;
  const endPx = rightPx - to.xPx < NEAR_EDGE_PX ? rightPx + 6 : to.xPx + 9;
  const upright = Math.abs(from.xPx - to.xPx) < 1;
  return (
    <>
      <line
        x1={from.xPx}
        y1={from.yPx}
        x2={to.xPx}
        y2={to.yPx}
        stroke={run.mounts.length > 0 ? 'var(--color-ink-2)' : 'var(--color-stop)'}
        strokeWidth={Math.max(LEAST_RAIL_PX, RAIL_M * camera.pxPerM)}
        strokeDasharray={run.mounts.length > 0 ? undefined : '8 5'}
      />
      <text
        x={upright ? from.xPx : before ? startPx : endPx}
        y={upright ? to.yPx - 8 : to.yPx + 4.5}
        textAnchor={upright ? 'middle' : before ? 'end' : 'start'}
        fontSize="13"
        className="fill-ink"
        stroke="var(--color-sheet)"
        strokeWidth="4"
        paintOrder="stroke"
      >
        <tspan fontWeight="700">{run.name}</tspan>
        {!upright && limit !== undefined && (
          <tspan>{`  ${formatLength(widest, unit)} of ${formatLength(limit, unit)}`}</tspan>
        )}
      </text>
    </>
  );
}
