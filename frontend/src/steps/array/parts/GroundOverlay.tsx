/** Tables and their posts on the drawing: front posts filled, back ones open, lengths at the ends. */
import type { Schemas } from '@/api/client';
import { type Camera, toScreen } from '@/drawing/camera';
import { useJob } from '@/plan/JobContext';
import { formatLength } from '@/units/length';

interface GroundOverlayProps {
  camera: Camera;
  layout: Schemas['GroundLayout'];
}

export function GroundOverlay({ camera, layout }: GroundOverlayProps) {
  const { job } = useJob();
  return (
    <g aria-hidden="true" pointerEvents="none">
      {layout.tables.map((t) => {
        const from = toScreen(camera, { xM: t.left_m, yM: t.front_m + t.depth_m });
        return (
          <rect
            key={`${t.left_m} ${t.front_m}`}
            x={from.xPx - 2}
            y={from.yPx - 2}
            width={(t.right_m - t.left_m) * camera.pxPerM + 4}
            height={t.depth_m * camera.pxPerM + 4}
            fill="none"
            stroke="var(--color-ink-2)"
            strokeWidth="1"
          />
        );
      })}
      {layout.posts.map((p) => {
        const at = toScreen(camera, { xM: p.x_m, yM: p.y_m });
        return (
          <circle
            key={`${p.table} ${p.x_m} ${p.y_m}`}
            cx={at.xPx}
            cy={at.yPx}
            r="3.5"
            fill={p.back ? 'var(--color-sheet)' : 'var(--color-ink)'}
            stroke="var(--color-ink)"
            strokeWidth="1.5"
          />
        );
      })}
      {layout.tables.map((_, i) => {
        const mine = layout.posts.filter((p) => p.table === i + 1);
        return [false, true].flatMap((back) => {
          const row = mine.filter((p) => p.back === back);
          return [row[0], row.at(-1)].map((end, side) => {
            if (!end) return null;
            const at = toScreen(camera, { xM: end.x_m, yM: end.y_m });
            return (
              <text
                key={`${end.table} ${back} ${end.x_m}`}
                x={at.xPx + (side === 0 ? -8 : 8)}
                textAnchor={side === 0 ? 'end' : 'start'}
                y={at.yPx + 4}
                fontSize="12.5"
                fontWeight="600"
                stroke="var(--color-sheet)"
                strokeWidth="3"
                paintOrder="stroke"
              >
                {formatLength(end.height_m, job.unit)}
              </text>
            );
          });
        });
      })}
    </g>
  );
}
