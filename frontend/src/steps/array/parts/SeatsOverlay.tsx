/** Where brackets can sit under the modules: filled where they carry one, open where not. */
import type { Schemas } from '@/api/client';
import { type Camera, toScreen } from '@/drawing/camera';

interface SeatsOverlayProps {
  camera: Camera;
  report: Schemas['SeatReport'];
}

const HALF = 3.5;

export function SeatsOverlay({ camera, report }: SeatsOverlayProps) {
  return (
    <g aria-hidden="true" pointerEvents="none">
      {report.modules.flatMap((module) =>
        module.seats.map((seat) => {
          const at = toScreen(camera, { xM: seat.x_m, yM: seat.y_m });
          const carries = module.held_by.includes(seat.side);
          return (
            <rect
              key={`${module.module_id} ${seat.side} ${seat.x_m} ${seat.y_m}`}
              x={at.xPx - HALF}
              y={at.yPx - HALF}
              width={2 * HALF}
              height={2 * HALF}
              fill={carries ? 'var(--color-patina)' : 'var(--color-sheet)'}
              stroke="var(--color-ink)"
            />
          );
        }),
      )}
    </g>
  );
}
