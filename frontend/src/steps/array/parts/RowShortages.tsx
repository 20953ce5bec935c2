/** What the rows lack for one more, drawn in them. */
import type { Schemas } from '@/api/client';
import { type Camera, toScreen } from '@/drawing/camera';
import { formatSmall, formatSpare, type LengthUnit } from '@/units/length';

interface RowShortagesProps {
  unit: LengthUnit;
  camera: Camera;
  rows: Schemas['RowTold'][];
}

export function RowShortages({ camera, rows, unit }: RowShortagesProps) {
  return (
    <g pointerEvents="none">
      {rows.map((row) => {
        const middle = (row.bottom_m + row.top_m) / 2;
        const from = toScreen(camera, { xM: row.left_m, yM: middle });
        const to = toScreen(camera, { xM: row.right_m, yM: middle });
        const colour = row.short_m > 0 ? 'var(--color-copper)' : 'var(--color-patina)';
        const text =
          row.short_m > 0
            ? `${formatSmall(row.short_m, unit)} short`
            : `${formatSpare(-row.short_m, unit)} to spare`;
        const wide = text.length * 6.4 + 12;
        const x = (from.xPx + to.xPx) / 2;
        return (
          <g key={`${row.bottom_m} ${row.left_m}`} stroke={colour} strokeWidth="2">
            <line x1={from.xPx} x2={to.xPx} y1={from.yPx} y2={to.yPx} />
            {[from, to].map((end) => (
              <line key={end.xPx} x1={end.xPx} x2={end.xPx} y1={end.yPx - 9} y2={end.yPx + 9} />
            ))}
            <rect
              x={x - wide / 2}
              y={from.yPx - 11}
              width={wide}
              height="22"
              rx="4"
              fill="var(--color-sheet)"
              strokeWidth="1"
            />
            <text
              x={x}
              y={from.yPx + 4.5}
              fontSize="13"
              fontWeight="600"
              textAnchor="middle"
              fill="var(--color-ink)"
              stroke="none"
            >
              {text}
            </text>
          </g>
        );
      })}
    </g>
  );
}
