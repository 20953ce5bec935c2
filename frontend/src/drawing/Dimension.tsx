/** A dimension line as a carpenter draws it: extension lines, slashes, a gap for the figure. */
import type { PointPx } from './camera';

interface DimensionProps {
  from: PointPx;
  to: PointPx;
  /** How far the line stands off the edge, to the right of from → to. */
  offPx: number;
  gapPx: number;
  dashed?: boolean;
}

/** Where the figure of such a dimension goes. */
export function dimensionMiddle(from: PointPx, to: PointPx, offPx: number): PointPx {
  const { nx, ny } = normal(from, to);
  return {
    xPx: (from.xPx + to.xPx) / 2 + nx * offPx,
    yPx: (from.yPx + to.yPx) / 2 + ny * offPx,
  };
}

function normal(from: PointPx, to: PointPx) {
  const length = Math.hypot(to.xPx - from.xPx, to.yPx - from.yPx) || 1;
  return { nx: -(to.yPx - from.yPx) / length, ny: (to.xPx - from.xPx) / length, length };
}

export function Dimension({ from, to, offPx, gapPx, dashed = false }: DimensionProps) {
  const { nx, ny, length } = normal(from, to);
  const [ux, uy] = [(to.xPx - from.xPx) / length, (to.yPx - from.yPx) / length];
  const a = { xPx: from.xPx + nx * offPx, yPx: from.yPx + ny * offPx };
  const b = { xPx: to.xPx + nx * offPx, yPx: to.yPx + ny * offPx };
  const half = Math.min(gapPx / 2, length / 2);
  const middle = { xPx: (a.xPx + b.xPx) / 2, yPx: (a.yPx + b.yPx) / 2 };
  const line = (p: PointPx, q: PointPx) => (
    <line
      x1={p.xPx}
      y1={p.yPx}
      x2={q.xPx}
      y2={q.yPx}
      strokeDasharray={dashed ? '4 3' : undefined}
    />
  );
  const slash = (p: PointPx) => (
    <line x1={p.xPx - 5} y1={p.yPx + 5} x2={p.xPx + 5} y2={p.yPx - 5} strokeWidth="1.6" />
  );
  const reach = Math.sign(offPx) * 5;
  return (
    <g
      stroke={dashed ? 'var(--color-copper)' : 'var(--color-ink-2)'}
      fill="none"
      aria-hidden="true"
    >
      {line(a, { xPx: middle.xPx - ux * half, yPx: middle.yPx - uy * half })}
      {line({ xPx: middle.xPx + ux * half, yPx: middle.yPx + uy * half }, b)}
      {slash(a)}
      {slash(b)}
      {Math.abs(offPx) > 8 && (
        <>
          {line({ xPx: from.xPx + nx * reach, yPx: from.yPx + ny * reach }, a)}
          {line({ xPx: to.xPx + nx * reach, yPx: to.yPx + ny * reach }, b)}
        </>
      )}
    </g>
  );
}
