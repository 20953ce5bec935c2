/** The modules of a plane as things to walk among and toggle, by pointer or by keyboard. */
import type { Schemas } from '@/api/client';
import type { Camera } from '@/drawing/camera';
import { ModuleShape } from '@/drawing/ModuleShape';
import { type Direction, nextPlace } from '@/drawing/walk';

interface ModuleFieldProps {
  camera: Camera;
  array: Schemas['PlaneArray'];
  module: Schemas['ModuleSheet'];
  /** The plane as the server reports it: module size, and what no longer fits. */
  view: Schemas['PlaneView'];
  focused: string;
  onFocus: (id: string) => void;
  onToggle: (id: string) => void;
}

const DIRECTIONS: Record<string, Direction> = {
  ArrowLeft: 'left',
  ArrowRight: 'right',
  ArrowUp: 'up',
  ArrowDown: 'down',
};

export function ModuleField({
  camera,
  array,
  module,
  view,
  focused,
  onFocus,
  onToggle,
}: ModuleFieldProps) {
  const places = array.modules.map((m) => ({ id: m.id, xM: m.x_m, yM: m.y_m }));
  const entry = places.some((p) => p.id === focused) ? focused : places[0]?.id;
  return (
    <g>
      {array.modules.map((m, i) => (
        <g
          key={m.id}
          role="checkbox"
          aria-checked={m.present}
          aria-label={`Module ${i + 1}`}
          data-module={m.id}
          tabIndex={m.id === entry ? 0 : -1}
          className="cursor-pointer outline-none"
          onClick={() => onToggle(m.id)}
          onFocus={() => onFocus(m.id)}
          onBlur={() => onFocus('')}
          onKeyDown={(event) => {
            if (event.key === ' ') {
              event.preventDefault();
              onToggle(m.id);
            }
            const direction = DIRECTIONS[event.key];
            if (!direction) return;
            event.preventDefault();
            const to = nextPlace(places, m.id, direction);
            const svg = event.currentTarget.ownerSVGElement;
            svg?.querySelector<SVGGElement>(`[data-module="${to}"]`)?.focus();
          }}
        >
          <ModuleShape
            camera={camera}
            xM={m.x_m}
            yM={m.y_m}
            widthM={view.module_width_m}
            heightM={view.module_height_m}
            substrings={module.bypass_diodes}
            halfCut={module.half_cut}
            state={view.misplaced.includes(m.id) ? 'misplaced' : m.present ? 'on' : 'off'}
            focused={m.id === focused}
          />
        </g>
      ))}
    </g>
  );
}
