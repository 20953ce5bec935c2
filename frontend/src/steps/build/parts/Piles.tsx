/** Piles in the ground with the beams over them and the rails up the glass, seen from above. */
import type { Schemas } from '@/api/client';
import { type Camera, toScreen } from '@/drawing/camera';
import { formatTape, type LengthUnit } from '@/units/length';

interface PilesProps {
  camera: Camera;
  racked: Schemas['PlaneRackingView'];
  ground: Schemas['GroundView'];
  /** The right edge of the ground: names stand beside it. */
  edgeM: number;
  unit: LengthUnit;
}

const HALF_PX = 5;

export function Piles({ camera, racked, ground, edgeM, unit }: PilesProps) {
  return (
    <g>
      <g aria-hidden="true">
        {racked.runs.map((run) => {
          const from = toScreen(camera, { xM: run.from_m, yM: run.across_m });
          const to = toScreen(camera, { xM: run.to_m, yM: run.across_m });
          return (
            <g key={run.name}>
              <line
                x1={from.xPx}
                y1={from.yPx}
                x2={to.xPx}
                y2={to.yPx}
                stroke="var(--color-ink-2)"
                strokeWidth="4"
              />
              <text
                x={toScreen(camera, { xM: edgeM, yM: 0 }).xPx + 6}
                y={to.yPx + 4.5}
                fontSize="13"
                fontWeight="700"
                className="fill-ink"
              >
                {run.name}
              </text>
            </g>
          );
        })}
      </g>
      {ground.piles.map((pile, i) => {
        const at = toScreen(camera, { xM: pile.x_m, yM: pile.y_m });
        const told = [
          `Pile ${i + 1}, table ${pile.table}, ${pile.back ? 'back' : 'front'}`,
          `${formatTape(pile.reveal_m, unit)} out of the ground`,
          pile.length_m === null ? '' : `${formatTape(pile.length_m, unit)} long`,
        ]
          .filter(Boolean)
          .join(', ');
        return (
          <g
            key={`${pile.x_m} ${pile.y_m}`}
            role="button"
            data-stop=""
            tabIndex={-1}
            aria-label={told}
          >
            <title>{told}</title>
            <circle cx={at.xPx} cy={at.yPx} r="12" fill="transparent" />
            <rect
              x={at.xPx - HALF_PX}
              y={at.yPx - HALF_PX}
              width={2 * HALF_PX}
              height={2 * HALF_PX}
              fill={pile.back ? 'var(--color-sheet)' : 'var(--color-ink)'}
              stroke="var(--color-ink)"
              strokeWidth="2"
            />
          </g>
        );
      })}
    </g>
  );
}
