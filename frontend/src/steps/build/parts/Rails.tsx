/**
 * Rails as bars with their mounts. A mount is drawn to another support, or taken in hand and moved
 * there by arrows; it is held in place then, and the others are planned anew round it.
 */
import { useState } from 'react';
import type { Schemas } from '@/api/client';
import { type Camera, type PointM, type PointPx, toPlane, toScreen } from '@/drawing/camera';
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
/** A rail is taken hold of this broad, between its mounts. */
const GRIP_PX = 14;
const LETTER_PX = 20;
/** More runs in a line than this have their names over them. */
const BESIDE_EACH_OTHER = 3;
/** Where a rail is cut off last: a dashed stroke across it. */
const TRIM_PX = 8;
/** Drawn smaller, rails lie too near each other, and the margin is too narrow, for their spans. */
const SPANS_TOLD_PX_PER_M = 22;

interface RailsProps {
  camera: Camera;
  racked: Racked;
  corners: PointM[];
  unit: LengthUnit;
  /** Whether what is drawn is still that of before the last edit. */
  behind: boolean;
  onPin: (rail: number, atM: number | null, insteadOfM: number | null) => Promise<unknown>;
  /** Where rails lie from the edge of their modules. */
  onOffset: (offsetM: number) => Promise<unknown>;
}

/** What an arrow moves a rail by: half an inch, or a centimetre. */
const NUDGE_M = { ft: 0.0127, m: 0.01 };

export function Rails({ camera, racked, corners, unit, behind, onPin, onOffset }: RailsProps) {
  const xs = corners.map((c) => toScreen(camera, c).xPx);
  const roofPx: [number, number] = [Math.min(...xs), Math.max(...xs)];
  // A run that another follows on its line is told at its start.
  const isBefore = (run: Run) =>
    racked.runs.some((r) => r.line === run.line && r.from_m > run.to_m);
  // Short rails follow each other too closely for words beside them.
  const isCrowded = (run: Run) =>
    racked.runs.filter((r) => r.line === run.line).length > BESIDE_EACH_OTHER;
  const at = (run: Run, alongM: number): PointM =>
    racked.up_slope ? { xM: run.across_m, yM: alongM } : { xM: alongM, yM: run.across_m };
  // A mount stands where it was put at once; the others follow with the answer.
  const [put, setPut] = useState<{ on: Racked; id: string; atM: number; told: boolean } | null>(
    null,
  );
  const standing = put?.on === racked && (behind || !put.told) ? put : null;
  const mounts = racked.runs.flatMap((run) =>
    run.mounts.map((planned) => {
      const id = `${run.name} ${planned.at_m}`;
      if (standing?.id !== id) return { run, mount: planned, id };
      const support = racked.supports_m.indexOf(standing.atM) + 1;
      return { run, mount: { ...planned, at_m: standing.atM, support, pinned: true }, id };
    }),
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
    const now = { on: racked, id, atM: nearest, told: false };
    setPut(now);
    return onPin(run.line, nearest, mount.at_m).then(() =>
      setPut((last) => (last === now ? { ...now, told: true } : last)),
    );
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
  /** A rail drawn or nudged across: all rails of the plane keep the same distance from an edge. */
  const across = (run: Run, byM: number) => {
    if (run.offset_m === null) return Promise.resolve();
    return onOffset(Math.max(0, run.offset_m + (run.upper ? -byM : byM)));
  };
  const dragRail = useDrag((name, dxPx, dyPx) => {
    const run = racked.runs.find((r) => r.name === name);
    const byPx = racked.up_slope ? dxPx : -dyPx;
    return run ? across(run, byPx / camera.pxPerM) : Promise.resolve();
  });
  const railHold = useHold((name, { dxM, dyM }) => {
    const run = racked.runs.find((r) => r.name === name);
    const way = Math.sign(racked.up_slope ? dxM : dyM);
    if (run) void across(run, way * NUDGE_M[unit]);
  });
  return (
    <g>
      {racked.runs.map((run) => {
        if (run.offset_m === null) return null;
        const [from, to] = [
          toScreen(camera, at(run, run.from_m)),
          toScreen(camera, at(run, run.to_m)),
        ];
        const name = isCrowded(run) ? to : nameGrip(from, to, roofPx, isBefore(run));
        const told = `Rail ${run.name}, ${formatTape(run.offset_m, unit)} from the ${run.upper ? 'upper' : 'lower'} edge of its modules`;
        return (
          <g
            key={run.name}
            role="button"
            data-stop=""
            tabIndex={-1}
            aria-label={railHold.told(run.name, told)}
            className={`${racked.up_slope ? 'cursor-ew-resize' : 'cursor-ns-resize'} ${HELD_LOOK}`}
            {...dragRail(run.name)}
            {...railHold.hold(run.name)}
          >
            <title>{told}</title>
            {/* Out to its name: between mounts that stand close there is no room for a hand. */}
            <line
              x1={from.xPx}
              y1={from.yPx}
              x2={name.xPx}
              y2={name.yPx}
              stroke="transparent"
              strokeWidth={GRIP_PX}
            />
            <line
              x1={name.xPx}
              y1={name.yPx}
              x2={to.xPx}
              y2={to.yPx}
              stroke="transparent"
              strokeWidth={GRIP_PX}
            />
          </g>
        );
      })}
      <g aria-hidden="true" pointerEvents="none">
        {racked.runs.map((run) => (
          <RailBar
            key={run.name}
            run={run}
            camera={camera}
            at={at}
            unit={unit}
            roofPx={roofPx}
            before={isBefore(run)}
            crowded={isCrowded(run)}
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

const isUpright = (from: PointPx, to: PointPx) => Math.abs(from.xPx - to.xPx) < 1;

/** Where a name stands before a rail and behind it. */
function beside(from: PointPx, to: PointPx, [leftPx, rightPx]: [number, number]) {
  return [
    from.xPx - leftPx < NEAR_EDGE_PX ? leftPx - 6 : from.xPx - 9,
    rightPx - to.xPx < NEAR_EDGE_PX ? rightPx + 6 : to.xPx + 9,
  ] as const;
}

/** The far end of a rail's name. */
function nameGrip(from: PointPx, to: PointPx, roofPx: [number, number], before: boolean): PointPx {
  if (isUpright(from, to)) return { xPx: to.xPx, yPx: to.yPx - LETTER_PX };
  const [startPx, endPx] = beside(from, to, roofPx);
  return { xPx: before ? startPx - LETTER_PX : endPx + LETTER_PX, yPx: from.yPx };
}

interface RailBarProps {
  run: Run;
  camera: Camera;
  at: (run: Run, alongM: number) => PointM;
  unit: LengthUnit;
  /** From where to where the roof reaches on the screen: names stand beside it, not on its edge. */
  roofPx: [number, number];
  before: boolean;
  crowded: boolean;
}

function RailBar({ run, camera, at, unit, roofPx, before, crowded }: RailBarProps) {
  const from = toScreen(camera, at(run, run.from_m));
  const to = toScreen(camera, at(run, run.to_m));
  const spans = run.mounts.slice(1).map((m, i) => m.at_m - (run.mounts[i]?.at_m ?? 0));
  const widest = Math.max(0, ...spans);
  const place = spans.indexOf(widest);
  const limit = run.limits_m[place];
  const upright = isUpright(from, to);
  const over = upright || crowded;
  const [startPx, endPx] = beside(from, to, roofPx);
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
      {[
        [run.trim_left_m, run.from_m + run.trim_left_m],
        [run.trim_right_m, run.to_m - run.trim_right_m],
      ].map(([trimM = 0, cutM = 0]) => {
        if (trimM === 0) return null;
        const cut = toScreen(camera, at(run, cutM));
        return (
          <line
            key={cutM}
            x1={upright ? cut.xPx - TRIM_PX : cut.xPx}
            x2={upright ? cut.xPx + TRIM_PX : cut.xPx}
            y1={upright ? cut.yPx : cut.yPx - TRIM_PX}
            y2={upright ? cut.yPx : cut.yPx + TRIM_PX}
            stroke="var(--color-copper)"
            strokeWidth="2"
            strokeDasharray="3 2"
          />
        );
      })}
      <text
        x={over ? (from.xPx + to.xPx) / 2 : before ? startPx : endPx}
        y={over ? Math.min(from.yPx, to.yPx) - (crowded ? 9 : 8) : to.yPx + 4.5}
        textAnchor={over ? 'middle' : before ? 'end' : 'start'}
        fontSize="13"
        className="fill-ink"
        stroke="var(--color-sheet)"
        strokeWidth="4"
        paintOrder="stroke"
      >
        <tspan fontWeight="700">{run.name}</tspan>
        {!over && limit !== undefined && camera.pxPerM > SPANS_TOLD_PX_PER_M && (
          <tspan>{`  ${formatLength(widest, unit)} of ${formatLength(limit, unit)}`}</tspan>
        )}
      </text>
    </>
  );
}
