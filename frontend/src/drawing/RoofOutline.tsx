/** A roof plane to scale: edges by kind, free strips hatched, obstructions, north. */
import { type Camera, type PointM, toScreen } from './camera';

export interface DrawnObstruction {
  id: string;
  name: string;
  round: boolean;
  leftM: number;
  bottomM: number;
  widthM: number;
  depthM: number;
}

interface RoofOutlineProps {
  camera: Camera;
  corners: PointM[];
  /** Widths of the free strips along eave, rake, ridge, rake. */
  stripsM: [number, number, number, number];
}

const path = (camera: Camera, points: PointM[]) =>
  points
    .map((p) => toScreen(camera, p))
    .map(({ xPx, yPx }) => `${xPx.toFixed(1)},${yPx.toFixed(1)}`)
    .join(' ');

function strip(a: PointM, b: PointM, widthM: number): PointM[] {
  const length = Math.hypot(b.xM - a.xM, b.yM - a.yM) || 1;
  const [nx, ny] = [(-(b.yM - a.yM) / length) * widthM, ((b.xM - a.xM) / length) * widthM];
  return [a, b, { xM: b.xM + nx, yM: b.yM + ny }, { xM: a.xM + nx, yM: a.yM + ny }];
}

export function RoofOutline({ camera, corners, stripsM }: RoofOutlineProps) {
  const [a, b, c, d] = corners;
  if (!a || !b || !c || !d) return null;
  const edges = [
    [a, b],
    [b, c],
    [c, d],
    [d, a],
  ] as const;
  const [pa, pb, pc, pd] = [a, b, c, d].map((p) => toScreen(camera, p));
  if (!pa || !pb || !pc || !pd) return null;
  return (
    <g aria-hidden="true">
      <defs>
        <pattern
          id="hatch"
          width="8"
          height="8"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <line x1="0" y1="0" x2="0" y2="8" stroke="var(--color-rule)" strokeWidth="1.6" />
        </pattern>
        <clipPath id="roof">
          <polygon points={path(camera, corners)} />
        </clipPath>
      </defs>
      <polygon points={path(camera, corners)} fill="var(--color-sheet)" />
      <g clipPath="url(#roof)">
        {edges.map(([from, to], i) => (
          <polygon
            // biome-ignore lint/suspicious/noArrayIndexKey: an edge is its index
            key={i}
            points={path(camera, strip(from, to, stripsM[i] ?? 0))}
            fill="url(#hatch)"
          />
        ))}
      </g>
      <line
        x1={pa.xPx}
        y1={pa.yPx}
        x2={pb.xPx}
        y2={pb.yPx}
        stroke="var(--color-ink)"
        strokeWidth="1.5"
      />
      <line
        x1={pa.xPx}
        y1={pa.yPx + 3.5}
        x2={pb.xPx}
        y2={pb.yPx + 3.5}
        stroke="var(--color-ink)"
        strokeWidth="1.5"
      />
      <line
        x1={pb.xPx}
        y1={pb.yPx}
        x2={pc.xPx}
        y2={pc.yPx}
        stroke="var(--color-ink)"
        strokeWidth="1.5"
      />
      <line
        x1={pd.xPx}
        y1={pd.yPx}
        x2={pa.xPx}
        y2={pa.yPx}
        stroke="var(--color-ink)"
        strokeWidth="1.5"
      />
      <line
        x1={pd.xPx}
        y1={pd.yPx}
        x2={pc.xPx}
        y2={pc.yPx}
        stroke="var(--color-copper)"
        strokeWidth="4"
      />
    </g>
  );
}

interface ObstructionMarkProps {
  camera: Camera;
  obstruction: DrawnObstruction;
}

/** The footprint of one obstruction with its name beside it. */
export function ObstructionMark({ camera, obstruction: o }: ObstructionMarkProps) {
  const shift = o.round ? o.widthM / 2 : 0;
  const topLeft = toScreen(camera, { xM: o.leftM - shift, yM: o.bottomM - shift + o.depthM });
  const widthPx = Math.max(o.widthM * camera.pxPerM, 6);
  const heightPx = Math.max(o.depthM * camera.pxPerM, 6);
  return (
    <g>
      <rect
        x={topLeft.xPx}
        y={topLeft.yPx}
        width={widthPx}
        height={heightPx}
        rx={o.round ? widthPx / 2 : 1}
        fill="var(--color-obstruction)"
        stroke="var(--color-ink)"
      />
      {o.round || widthPx < 52 ? (
        <text
          x={topLeft.xPx + widthPx / 2}
          y={topLeft.yPx - 5}
          stroke="var(--color-sheet)"
          strokeWidth="3"
          paintOrder="stroke"
          fontSize="12.5"
          fill="var(--color-ink)"
          textAnchor="middle"
        >
          {o.name}
        </text>
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
