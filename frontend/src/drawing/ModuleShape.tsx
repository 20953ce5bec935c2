/** One module on the plan: substrings as hairlines along the long side, a cross-line if half-cut. */
import { memo } from 'react';
import { type Camera, toScreen } from './camera';

interface ModuleShapeProps {
  camera: Camera;
  xM: number;
  yM: number;
  widthM: number;
  heightM: number;
  substrings: number;
  halfCut: boolean;
  state: 'on' | 'off' | 'misplaced' | 'kept';
  /** Taken hold of, to be moved or turned. */
  held?: boolean;
  focused?: boolean;
}

const FILL = {
  on: 'var(--color-module)',
  off: 'transparent',
  misplaced: 'var(--color-stop-wash)',
  kept: 'var(--color-warn-wash)',
};
const STROKE = {
  on: 'var(--color-ink-3)',
  off: 'var(--color-field)',
  misplaced: 'var(--color-stop)',
  kept: 'var(--color-warn)',
};

/** Drawn again only where something of it changes: a roof has dozens. */
export const ModuleShape = memo(function ModuleShape({
  camera,
  xM,
  yM,
  widthM,
  heightM,
  substrings,
  halfCut,
  state,
  held = false,
  focused = false,
}: ModuleShapeProps) {
  const topLeft = toScreen(camera, { xM, yM: yM + heightM });
  const [w, h] = [widthM * camera.pxPerM, heightM * camera.pxPerM];
  const upright = h >= w;
  const hairlines = Array.from({ length: substrings - 1 }, (_, i) => (i + 1) / substrings);
  return (
    <g transform={`translate(${topLeft.xPx} ${topLeft.yPx})`}>
      <rect
        width={w}
        height={h}
        fill={FILL[state]}
        stroke={STROKE[state]}
        strokeWidth={state === 'misplaced' || state === 'kept' ? 2 : 1.2}
        strokeDasharray={state === 'off' ? '4 4' : state === 'kept' ? '8 4' : undefined}
      />
      {state !== 'off' && (
        <g stroke="var(--color-substring)" strokeWidth="0.7">
          {hairlines.map((share) =>
            upright ? (
              <line key={share} x1={w * share} x2={w * share} y1="0" y2={h} />
            ) : (
              <line key={share} y1={h * share} y2={h * share} x1="0" x2={w} />
            ),
          )}
          {halfCut &&
            (upright ? (
              <line x1="0" x2={w} y1={h / 2} y2={h / 2} />
            ) : (
              <line y1="0" y2={h} x1={w / 2} x2={w / 2} />
            ))}
        </g>
      )}
      {state === 'misplaced' && (
        <path d={`M0 0 L${w} ${h} M${w} 0 L0 ${h}`} stroke="var(--color-stop)" strokeWidth="1.2" />
      )}
      {held && (
        <rect
          width={w}
          height={h}
          fill="var(--color-copper)"
          fillOpacity="0.14"
          stroke="var(--color-copper)"
          strokeWidth="2.5"
        />
      )}
      {focused && (
        <rect
          x="-1.5"
          y="-1.5"
          width={w + 3}
          height={h + 3}
          fill="none"
          stroke="var(--color-copper)"
          strokeWidth="3"
        />
      )}
    </g>
  );
});
