/** The modules of a plane: walked among, toggled, held, moved; by pointer or by keyboard. */
import type { KeyboardEvent } from 'react';
import type { Schemas } from '@/api/client';
import type { Camera } from '@/drawing/camera';
import { ModuleShape } from '@/drawing/ModuleShape';
import { ARROWS } from '@/drawing/nudge';
import type { PlaneScene } from '@/drawing/RoofGround';
import { sizeOf } from '@/plan/modules';
import { type Hand, rowOf, switched } from '../hand';
import { useModuleDrag } from './useModuleDrag';

interface ModuleFieldProps {
  camera: Camera;
  scene: PlaneScene;
  array: Schemas['PlaneArray'];
  module: Schemas['ModuleSheet'];
  /** The plane as the server reports it: what no longer keeps its distances. */
  view: Schemas['PlaneView'];
  hand: Hand;
  held: readonly string[];
  onHeld: (ids: string[]) => void;
  focused: string;
  onFocus: (id: string) => void;
  onToggle: (id: string) => void;
  onMove: (ids: string[], rightM: number, upM: number) => Promise<unknown>;
}

const FINE_M = 0.01;

export function ModuleField({
  camera,
  scene,
  array,
  module,
  view,
  hand,
  held,
  onHeld,
  focused,
  onFocus,
  onToggle,
  onMove,
}: ModuleFieldProps) {
  const drag = useModuleDrag({ camera, scene, array, module, held, onMove });
  const kept = new Set(view.troubles.filter((t) => t.kept_because).map((t) => t.module_id));
  const stateOf = (m: Schemas['PlacedModule']) => {
    if (!m.present) return 'off';
    if (view.misplaced.includes(m.id)) return 'misplaced';
    return kept.has(m.id) ? 'kept' : 'on';
  };
  const click = (id: string, adding: boolean) => {
    if (drag.wasMove()) return;
    if (adding || hand.kind === 'hold') onHeld(switched(held, id));
    else if (hand.kind === 'toggle') onToggle(id);
  };
  const key = (event: KeyboardEvent<SVGGElement>, id: string) => {
    if (event.key === ' ') {
      event.preventDefault();
      onToggle(id);
    }
    if (event.key.toLowerCase() === 'h' && !event.ctrlKey && !event.metaKey) {
      event.preventDefault();
      onHeld(
        event.shiftKey ? [...new Set([...held, ...rowOf(array.modules, id)])] : switched(held, id),
      );
    }
    const way = ARROWS[event.key];
    // What is not held is walked by: the drawing's arrows go on to the next module.
    if (!way || !held.includes(id)) return;
    event.preventDefault();
    const [right, up] = way;
    const gapM = right ? array.gap_in_row.value_m : array.gap_between_rows.value_m;
    const stepM = event.shiftKey ? FINE_M : Math.max(gapM, FINE_M);
    void onMove([...held], right * stepM, up * stepM);
  };
  return (
    <g>
      {array.modules.map((m, i) => (
        <g
          key={m.id}
          role="checkbox"
          aria-checked={m.present}
          aria-label={held.includes(m.id) ? `Module ${i + 1}, held` : `Module ${i + 1}`}
          data-module={m.id}
          data-stop=""
          tabIndex={-1}
          className="cursor-pointer outline-none"
          onClick={(event) => click(m.id, event.shiftKey || event.ctrlKey || event.metaKey)}
          onFocus={() => onFocus(m.id)}
          onBlur={() => onFocus('')}
          onKeyDown={(event) => key(event, m.id)}
          {...drag.grips(m.id)}
        >
          <ModuleShape
            camera={camera}
            xM={m.x_m}
            yM={m.y_m}
            {...sizeOf(module, m.orientation, array.leg_tilt_deg)}
            substrings={module.bypass_diodes}
            halfCut={module.half_cut}
            state={stateOf(m)}
            held={held.includes(m.id)}
            focused={m.id === focused}
          />
        </g>
      ))}
    </g>
  );
}
