/** What lies in a roof plane: free strips hatched, rafters and ribs, keep-outs, modules there. */
import { useId } from 'react';
import { type Camera, type PointM, toScreen } from './camera';
import type { DrawnEdge, DrawnObstruction } from './RoofOutline';

export interface BoxM {
  leftM: number;
  bottomM: number;
  rightM: number;
  topM: number;
}

export const overlaps = (a: BoxM, b: BoxM) =>
  a.leftM < b.rightM && b.leftM < a.rightM && a.bottomM < b.topM && b.bottomM < a.topM;

export interface DrawnZone {
  id: string;
  reason: string;
  ring: PointM[];
}

export interface PlaneScene {
  corners: PointM[];
  edges: DrawnEdge[];
  azimuthDeg: number;
  obstructions: DrawnObstruction[];
  keepOuts: DrawnZone[];
  existing: { id: string; box: BoxM; columns: number; rows: number }[];
  raftersXM: number[];
  purlinsYM: number[];
  ribsXM: number[];
  /** Words over the roof: taken, or to stay free. */
  note: string;
}

export const pathOf = (camera: Camera, points: PointM[]) =>
  points
    .map((p) => toScreen(camera, p))
    .map(({ xPx, yPx }) => `${xPx.toFixed(1)},${yPx.toFixed(1)}`)
    .join(' ');

/** The strip inside an edge; outlines run anticlockwise, so inside is to the left. */
function strip(a: PointM, b: PointM, widthM: number): PointM[] {
  const length = Math.hypot(b.xM - a.xM, b.yM - a.yM) || 1;
  const [nx, ny] = [(-(b.yM - a.yM) / length) * widthM, ((b.xM - a.xM) / length) * widthM];
  return [a, b, { xM: b.xM + nx, yM: b.yM + ny }, { xM: a.xM + nx, yM: a.yM + ny }];
}

interface RoofGroundProps {
  camera: Camera;
  scene: PlaneScene;
}

export function RoofGround({ camera, scene }: RoofGroundProps) {
  const { corners, edges } = scene;
  const clip = useId();
  const ys = corners.map((c) => c.yM);
  const xs = corners.map((c) => c.xM);
  const [low, high] = [Math.min(...ys), Math.max(...ys)];
  const [left, right] = [Math.min(...xs), Math.max(...xs)];
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
        <pattern
          id="kept-out"
          width="7"
          height="7"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(-45)"
        >
          <line x1="0" y1="0" x2="0" y2="7" stroke="var(--color-copper)" strokeWidth="1.4" />
        </pattern>
        <pattern
          id="path"
          width="9"
          height="9"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <path d="M0 0V9M0 0H9" stroke="var(--color-field)" strokeWidth="1.4" fill="none" />
        </pattern>
        <clipPath id={clip}>
          <polygon points={pathOf(camera, corners)} />
        </clipPath>
      </defs>
      <polygon points={pathOf(camera, corners)} fill="var(--color-sheet)" data-ground="" />
      <g clipPath={`url(#${clip})`} pointerEvents="none">
        <Lines camera={camera} xs={scene.ribsXM} low={low} high={high} width={1} />
        <Lines camera={camera} xs={scene.raftersXM} low={low} high={high} width={3.5} />
        {scene.purlinsYM.map((yM) => {
          const [from, to] = [
            toScreen(camera, { xM: left, yM }),
            toScreen(camera, { xM: right, yM }),
          ];
          return (
            <line
              key={yM}
              x1={from.xPx}
              y1={from.yPx}
              x2={to.xPx}
              y2={to.yPx}
              stroke="var(--color-bar)"
              strokeWidth="4"
            />
          );
        })}
        {edges.map((edge, i) => {
          const [from, to] = [corners[i], corners[(i + 1) % corners.length]];
          if (!from || !to || edge.stripM <= 0) return null;
          return (
            <polygon
              // biome-ignore lint/suspicious/noArrayIndexKey: an edge is its index
              key={i}
              points={pathOf(camera, strip(from, to, edge.stripM))}
              fill={edge.path ? 'url(#path)' : 'url(#hatch)'}
            />
          );
        })}
      </g>
      <g pointerEvents="none">
        {scene.existing.map((there) => (
          <ThereAlready key={there.id} camera={camera} {...there} />
        ))}
        {scene.keepOuts.map((zone) => (
          <polygon
            key={zone.id}
            points={pathOf(camera, zone.ring)}
            fill="url(#kept-out)"
            stroke="var(--color-copper)"
            strokeWidth="1.5"
          />
        ))}
      </g>
    </g>
  );
}

interface LinesProps {
  camera: Camera;
  xs: number[];
  low: number;
  high: number;
  width: number;
}

function Lines({ camera, xs, low, high, width }: LinesProps) {
  return xs.map((xM) => {
    const [from, to] = [toScreen(camera, { xM, yM: low }), toScreen(camera, { xM, yM: high })];
    return (
      <line
        key={xM}
        x1={from.xPx}
        y1={from.yPx}
        x2={to.xPx}
        y2={to.yPx}
        stroke="var(--color-bar)"
        strokeWidth={width}
      />
    );
  });
}

interface ThereAlreadyProps {
  camera: Camera;
  box: BoxM;
  columns: number;
  rows: number;
}

/** Modules that are there already: outlined, never counted with the new ones. */
function ThereAlready({ camera, box, columns, rows }: ThereAlreadyProps) {
  const [wideM, tallM] = [(box.rightM - box.leftM) / columns, (box.topM - box.bottomM) / rows];
  const cells = Array.from({ length: columns * rows }, (_, i) => ({
    xM: box.leftM + (i % columns) * wideM,
    yM: box.bottomM + Math.floor(i / columns) * tallM,
  }));
  return cells.map(({ xM, yM }) => {
    const corner = toScreen(camera, { xM, yM: yM + tallM });
    return (
      <rect
        key={`${xM} ${yM}`}
        x={corner.xPx}
        y={corner.yPx}
        width={wideM * camera.pxPerM}
        height={tallM * camera.pxPerM}
        fill="var(--color-bar)"
        stroke="var(--color-ink-2)"
        strokeDasharray="3 2"
      />
    );
  });
}
