/** Strings as threads through module centres, numbered from the positive end. */
import type { ReactNode } from 'react';
import type { Schemas } from '@/api/client';
import { type Camera, type PointPx, toScreen } from '@/drawing/camera';
import { ModuleShape } from '@/drawing/ModuleShape';
import { threadOf } from '@/drawing/threads';
import { sizeOf } from '@/plan/modules';
import { pressed } from '@/ui/pressable';
import { formatLength, type LengthUnit } from '@/units/length';

interface ThreadsProps {
  camera: Camera;
  array: Schemas['PlaneArray'];
  module: Schemas['ModuleSheet'];
  strings: Schemas['ModuleString'][];
  /** The string looked at. */
  chosenTag: string;
  unit: LengthUnit;
  /** How far apart modules joined by their own leads may be; null where nobody knows. */
  reachM: number | null;
  /** Modules with an optimizer of their own. */
  fitted: readonly string[];
  /** Modules threaded by hand so far, in wiring order; null while nobody threads. */
  draft: readonly string[] | null;
  /** A module was clicked, or drawn across. */
  onModule: (id: string, drawn: boolean) => void;
  /** What lies between the modules and the threads. */
  children?: ReactNode;
}

export function Threads({
  camera,
  array,
  module,
  strings,
  chosenTag,
  unit,
  reachM,
  fitted,
  draft,
  onModule,
  children,
}: ThreadsProps) {
  const centre = new Map(
    array.modules.map((m) => {
      const { widthM, heightM } = sizeOf(module, m.orientation, array.leg_tilt_deg);
      return [m.id, toScreen(camera, { xM: m.x_m + widthM / 2, yM: m.y_m + heightM / 2 })];
    }),
  );
  const reachPx = (reachM ?? module.long_m * REACH_LENGTHS) * camera.pxPerM;
  const radiusPx = Math.max(3, Math.min(13, (module.short_m * camera.pxPerM) / 2 - 2));
  return (
    <g>
      {array.modules
        .filter((m) => m.present)
        .map((m) => (
          <ModuleShape
            key={m.id}
            camera={camera}
            xM={m.x_m}
            yM={m.y_m}
            {...sizeOf(module, m.orientation, array.leg_tilt_deg)}
            substrings={module.bypass_diodes}
            halfCut={module.half_cut}
            state="on"
          />
        ))}
      {children}
      {strings.map((string, index) => {
        const { colour, dash } = threadOf(index);
        const points = string.module_ids.flatMap((id) => centre.get(id) ?? []);
        const first = points[0];
        // A string of another plane.
        if (!first) return null;
        return (
          <g
            key={string.tag}
            role="img"
            aria-label={`String ${string.tag}, ${points.length} modules in series on tracker ${string.tracker_number}`}
          >
            <polyline
              points={points.map((p) => `${p.xPx},${p.yPx}`).join(' ')}
              fill="none"
              stroke={colour}
              strokeWidth={string.tag === chosenTag ? 6 : 3}
              strokeDasharray={dash || undefined}
              opacity={draft ? 0.35 : 1}
            />
            {jumpsOf(points, reachPx, radiusPx).map(({ xPx, yPx, longPx, anchor }) => (
              <text
                key={`${xPx} ${yPx}`}
                x={xPx}
                y={yPx}
                fontSize="12"
                fontWeight="600"
                textAnchor={anchor}
                fill="var(--color-warn)"
                stroke="var(--color-sheet)"
                strokeWidth="3"
                paintOrder="stroke"
              >
                jump {formatLength(longPx / camera.pxPerM, unit)}
              </text>
            ))}
            {points.map((p, i) => (
              <g key={string.module_ids[i]} transform={`translate(${p.xPx} ${p.yPx})`}>
                <circle r={radiusPx} fill="var(--color-sheet)" stroke={colour} strokeWidth="2" />
                <text
                  y="4.2"
                  fontSize={radiusPx > 11 ? 12.5 : 11}
                  fontWeight="600"
                  fill={colour}
                  textAnchor="middle"
                >
                  {string.tag}
                  {i + 1}
                </text>
              </g>
            ))}
            {[
              { sign: '+', at: first },
              { sign: '−', at: points.at(-1) ?? first },
            ].map(({ sign, at }) => (
              <text
                key={sign}
                x={at.xPx - radiusPx - 2}
                y={at.yPx - radiusPx + 2}
                fontSize="17"
                fontWeight="600"
                fill={colour}
                textAnchor="middle"
              >
                {sign}
              </text>
            ))}
          </g>
        );
      })}
      {fitted.map((id) => {
        const at = centre.get(id);
        if (!at) return null;
        const { xPx, yPx } = at;
        const [left, right] = [xPx + radiusPx, xPx + radiusPx + 12];
        return (
          <path
            key={id}
            role="img"
            aria-label="optimizer"
            d={`M${left} ${yPx}L${left + 6} ${yPx - 6}L${right} ${yPx}L${left + 6} ${yPx + 6}Z`}
            fill="var(--color-copper)"
            stroke="var(--color-sheet)"
          />
        );
      })}
      {draft && <Draft points={draft.flatMap((id) => centre.get(id) ?? [])} radiusPx={radiusPx} />}
      {array.modules
        .filter((m) => m.present)
        .map((m, i) => {
          const { widthM, heightM } = sizeOf(module, m.orientation, array.leg_tilt_deg);
          const corner = toScreen(camera, { xM: m.x_m, yM: m.y_m + heightM });
          const mine = strings.find((s) => s.module_ids.includes(m.id));
          const place = mine ? `${mine.tag}${mine.module_ids.indexOf(m.id) + 1}` : 'in no string';
          return (
            <rect
              key={m.id}
              role="button"
              data-stop=""
              tabIndex={-1}
              aria-label={`Module ${i + 1}, ${place}`}
              x={corner.xPx}
              y={corner.yPx}
              width={widthM * camera.pxPerM}
              height={heightM * camera.pxPerM}
              fill="transparent"
              className={draft ? 'cursor-crosshair' : 'cursor-pointer'}
              onPointerDown={(event) => {
                // Drawing on goes over other modules: none of them may hold the pointer.
                event.currentTarget.releasePointerCapture(event.pointerId);
                onModule(m.id, false);
              }}
              onPointerEnter={(event) => {
                if (draft && event.buttons === 1) onModule(m.id, true);
              }}
              onKeyDown={pressed(() => onModule(m.id, false))}
            />
          );
        })}
    </g>
  );
}

/** Where no sheet tells the leads: further than this many module lengths they may not reach. */
const REACH_LENGTHS = 1.15;
/** A jump this far from upright and from level is told in its middle. */
const SLANT = 0.3;

interface Jump extends PointPx {
  longPx: number;
  anchor: 'start' | 'middle' | 'end';
}

/** Where a thread goes further than leads reach: how far, and where that is written. */
export function jumpsOf(points: readonly PointPx[], reachPx: number, clearPx: number): Jump[] {
  const xs = points.map((p) => p.xPx);
  const middlePx = (Math.min(...xs) + Math.max(...xs)) / 2;
  return points.slice(1).flatMap((to, i): Jump[] => {
    const from = points[i] ?? to;
    const longPx = Math.hypot(to.xPx - from.xPx, to.yPx - from.yPx);
    if (longPx <= reachPx * (1 + 1e-9)) return [];
    const [wide, tall] = [Math.abs(to.xPx - from.xPx), Math.abs(to.yPx - from.yPx)];
    if (Math.min(wide, tall) > SLANT * Math.max(wide, tall))
      return [
        {
          xPx: (from.xPx + to.xPx) / 2,
          yPx: (from.yPx + to.yPx) / 2 + 4,
          longPx,
          anchor: 'middle',
        },
      ];
    // Beside its first module: what a thread jumps over stands in its middle.
    const upright = wide < tall;
    const right = upright ? from.xPx <= middlePx : to.xPx > from.xPx;
    const away = upright ? 7 : clearPx + 5;
    const down = upright ? (clearPx + 16) * Math.sign(to.yPx - from.yPx) : -7;
    return [
      {
        xPx: from.xPx + (right ? away : -away),
        yPx: from.yPx + down,
        longPx,
        anchor: right ? 'start' : 'end',
      },
    ];
  });
}

/** The thread as far as it is drawn. */
function Draft({ points, radiusPx }: { points: readonly PointPx[]; radiusPx: number }) {
  return (
    <g pointerEvents="none">
      <polyline
        points={points.map((p) => `${p.xPx},${p.yPx}`).join(' ')}
        fill="none"
        stroke="var(--color-ink)"
        strokeWidth="4"
      />
      {points.map((p, i) => (
        <g key={`${p.xPx} ${p.yPx}`} transform={`translate(${p.xPx} ${p.yPx})`}>
          <circle r={radiusPx} fill="var(--color-ink)" />
          <text
            y="4.2"
            fontSize="12.5"
            fontWeight="600"
            fill="var(--color-sheet)"
            textAnchor="middle"
          >
            {i + 1}
          </text>
        </g>
      ))}
    </g>
  );
}
