/** The modules of a plane as things to walk among and toggle, by pointer or by keyboard. */
import type { Schemas } from '@/api/client';
import type { Camera } from '@/drawing/camera';
import { ModuleShape } from '@/drawing/ModuleShape';
import { type Direction, nextPlace } from '@/drawing/walk';

interface ModuleFieldProps {
  camera: Camera;
  array: Schemas['PlaneArray'];
  module: Schemas['ModuleSheet'];
  misplaced: string[];
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
  misplaced,
  focused,
  onFocus,
  onToggle,
}: ModuleFieldProps) {
  const upright = array.orientation === 'P';
  const [widthM, heightM] = upright
    ? [module.short_m, module.long_m]
    : [module.long_m, module.short_m];
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
            widthM={widthM}
            heightM={heightM}
            substrings={module.bypass_diodes}
            halfCut={module.half_cut}
            state={misplaced.includes(m.id) ? 'misplaced' : m.present ? 'on' : 'off'}
            focused={m.id === focused}
          />
        </g>
      ))}
    </g>
  );
}
