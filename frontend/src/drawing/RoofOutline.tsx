/** The edges of a roof plane by kind and by how they are known; obstructions; north. */
import type { SVGProps } from 'react';
import { type Camera, type PointM, type PointPx, toScreen } from './camera';

export interface DrawnObstruction {
  id: string;
  name: string;
  round: boolean;
  leftM: number;
  bottomM: number;
  widthM: number;
  depthM: number;
}

export type EdgeKind = 'eave' | 'rake' | 'ridge' | 'hip' | 'valley' | 'wall' | 'boundary';
export type EdgeState = 'taped' | 'derived' | 'reckoned' | 'loose' | 'suspect';

export interface DrawnEdge {
  kind: EdgeKind;
  state: EdgeState;
  /** Width of the strip along it that stays free. */
  stripM: number;
  /** The access path runs in it. */
  path?: boolean;
}

const STROKE: Record<EdgeKind, { colour: string; width: number; dash?: string }> = {
  eave: { colour: 'var(--color-ink)', width: 1.8 },
  rake: { colour: 'var(--color-ink)', width: 1.8 },
  ridge: { colour: 'var(--color-copper)', width: 4 },
  hip: { colour: 'var(--color-ink)', width: 2, dash: '10 4' },
  valley: { colour: 'var(--color-ink)', width: 2, dash: '2 4' },
  wall: { colour: 'var(--color-ink)', width: 3.5 },
  boundary: { colour: 'var(--color-ink-2)', width: 1.8, dash: '12 4 2 4' },
};
const PARALLEL_PX = 3.5;

interface RoofEdgesProps {
  camera: Camera;
  corners: PointM[];
  edges: DrawnEdge[];
}

/** An eave is a double line, a ridge copper; what is not taped is thin, what is loose dotted. */
export function RoofEdges({ camera, corners, edges }: RoofEdgesProps) {
  const ends = corners.map((c) => toScreen(camera, c));
  return (
    <g aria-hidden="true" fill="none" pointerEvents="none">
      {edges.map((edge, i) => {
        const [a, b] = [ends[i], ends[(i + 1) % ends.length]];
        if (!a || !b) return null;
        const { colour, width, dash } = STROKE[edge.kind];
        const loose = edge.state === 'loose';
        const thin = edge.state === 'derived' || edge.state === 'reckoned';
        const length = Math.hypot(b.xPx - a.xPx, b.yPx - a.yPx) || 1;
        // Outwards: to the right of the run as the screen has it.
        const out = {
          xPx: (-(b.yPx - a.yPx) / length) * PARALLEL_PX,
          yPx: ((b.xPx - a.xPx) / length) * PARALLEL_PX,
        };
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: an edge is its index
          <g key={i}>
            {edge.state === 'suspect' && (
              <Line a={a} b={b} stroke="var(--color-straw)" strokeWidth={10} />
            )}
            <Line
              a={a}
              b={b}
              stroke={loose ? 'var(--color-field)' : colour}
              strokeWidth={loose ? 1.6 : thin ? Math.max(width / 2, 1) : width}
              strokeDasharray={loose ? '3 5' : dash}
            />
            {edge.kind === 'eave' && !loose && (
              <Line
                a={{ xPx: a.xPx + out.xPx, yPx: a.yPx + out.yPx }}
                b={{ xPx: b.xPx + out.xPx, yPx: b.yPx + out.yPx }}
                stroke={colour}
                strokeWidth={thin ? 1 : 1.5}
              />
            )}
          </g>
        );
      })}
    </g>
  );
}

interface LineProps extends SVGProps<SVGLineElement> {
  a: PointPx;
  b: PointPx;
}

function Line({ a, b, ...rest }: LineProps) {
  return <line x1={a.xPx} y1={a.yPx} x2={b.xPx} y2={b.yPx} {...rest} />;
}

/** About the width of a letter of a name. */
const LETTER_PX = 6.2;

interface ObstructionMarkProps {
  camera: Camera;
  obstruction: DrawnObstruction;
  /** Whether a name that does not fit on it stands beside it; under modules it would lie on theirs. */
  named?: boolean;
}

/** The footprint of one obstruction with its name on it or beside it. */
export function ObstructionMark({ camera, obstruction: o, named = true }: ObstructionMarkProps) {
  const shift = o.round ? o.widthM / 2 : 0;
  const topLeft = toScreen(camera, { xM: o.leftM - shift, yM: o.bottomM - shift + o.depthM });
  const widthPx = Math.max(o.widthM * camera.pxPerM, 6);
  const heightPx = Math.max(o.depthM * camera.pxPerM, 6);
  const besides = o.round || widthPx < o.name.length * LETTER_PX;
  return (
    <g>
      <title>{o.name}</title>
      <rect
        x={topLeft.xPx}
        y={topLeft.yPx}
        width={widthPx}
        height={heightPx}
        rx={o.round ? widthPx / 2 : 1}
        fill="var(--color-obstruction)"
        stroke="var(--color-ink)"
      />
      {besides ? (
        named && (
          <text
            x={topLeft.xPx + widthPx + 5}
            y={topLeft.yPx + heightPx / 2 + 4}
            stroke="var(--color-sheet)"
            strokeWidth="3"
            paintOrder="stroke"
            fontSize="12.5"
            fill="var(--color-ink)"
          >
            {o.name}
          </text>
        )
      ) : (
        <text
          x={topLeft.xPx + widthPx / 2}
          y={topLeft.yPx + heightPx / 2 + 4}
          fontSize="12.5"
          fill="var(--color-sheet)"
          textAnchor="middle"
        >
          {o.name}
        </text>
      )}
    </g>
  );
}

interface NorthProps {
  xPx: number;
  yPx: number;
  /** The plane's azimuth: up the screen is up the slope, which looks away from it. */
  azimuthDeg: number;
}

/** An arrow to true north on a drawing whose up is up the slope. */
export function North({ xPx, yPx, azimuthDeg }: NorthProps) {
  // Up the slope points to azimuth + 180; north lies that much to the left of it.
  const turn = -(azimuthDeg + 180);
  return (
    <g
      transform={`translate(${xPx} ${yPx})`}
      role="img"
      aria-label={`True north, plane azimuth ${azimuthDeg}°`}
    >
      <circle r="17" fill="none" stroke="var(--color-field)" />
      <g transform={`rotate(${turn})`}>
        <path d="M0 -13 L5 9 L0 5 L-5 9 Z" fill="var(--color-ink)" />
        <text
          y="-20"
          fontSize="12.5"
          fontWeight="600"
          textAnchor="middle"
          fill="var(--color-ink)"
          transform={`rotate(${-turn} 0 -24)`}
        >
          N
        </text>
      </g>
    </g>
  );
}
