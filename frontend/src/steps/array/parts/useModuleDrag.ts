/**
 * Moving modules with the pointer: on the screen itself while they are held, caught by the lines
 * around them, and handed over once when they are let go.
 */
import { type PointerEvent, useRef } from 'react';
import type { Schemas } from '@/api/client';
import type { Camera } from '@/drawing/camera';
import type { PlaneScene } from '@/drawing/RoofGround';
import {
  boxAround,
  type SnapLines,
  type Snapped,
  snapLines,
  snapped,
  stripLines,
} from '@/drawing/snap';
import { boxOf, columnOf } from '../hand';

const MEANT_PX = 4;
const CATCHES_PX = 9;

interface Pressed {
  id: string;
  fromX: number;
  fromY: number;
  moving: Moving | null;
}

interface Moving {
  ids: string[];
  nodes: SVGElement[];
  lifted: Lifted | null;
  box: ReturnType<typeof boxAround>;
  lines: SnapLines;
  shift: Snapped;
}

/** What moves on the screen: layers of their own, so that the drawing is not drawn anew. */
interface Lifted {
  layer: HTMLElement;
  /** The lines that show what was caught. */
  upright: HTMLElement;
  level: HTMLElement;
}

interface ModuleDrag {
  camera: Camera;
  scene: PlaneScene;
  array: Schemas['PlaneArray'];
  module: Schemas['ModuleSheet'];
  held: readonly string[];
  onMove: (ids: string[], rightM: number, upM: number) => Promise<unknown>;
}

export function useModuleDrag(drag: ModuleDrag) {
  const { camera, scene, array, module, held } = drag;
  const pressed = useRef<Pressed | null>(null);
  const justMoved = useRef(false);

  const begin = (id: string, svg: SVGSVGElement | null): Moving => {
    const ids = [
      ...new Set(
        (held.includes(id) ? held : [id]).flatMap((i) =>
          columnOf(array, module, i).map((m) => m.id),
        ),
      ),
    ];
    const mine = array.modules
      .filter((m) => ids.includes(m.id))
      .map((m) => boxOf(m, module, array.leg_tilt_deg));
    const others = array.modules.filter((m) => m.present && !ids.includes(m.id));
    const box = boxAround(mine);
    const nodes = ids.flatMap((i) => svg?.querySelector<SVGElement>(`[data-module="${i}"]`) ?? []);
    return {
      ids,
      nodes,
      lifted: lift(svg, nodes),
      box,
      lines: snapLines(box, {
        others: others.map((m) => boxOf(m, module, array.leg_tilt_deg)),
        strips: stripLines(scene.corners, scene.edges),
        uprightXM: [...scene.raftersXM, ...scene.ribsXM],
        levelYM: scene.purlinsYM,
        gapInRowM: array.gap_in_row.value_m,
        gapBetweenRowsM: array.gap_between_rows.value_m,
      }),
      shift: { dxM: 0, dyM: 0, xM: null, yM: null },
    };
  };
  const show = (moving: Moving) => {
    const { lifted, shift } = moving;
    const { pxPerM, originPx } = camera;
    if (!lifted) return;
    lifted.layer.style.transform = `translate(${shift.dxM * pxPerM}px, ${-shift.dyM * pxPerM}px)`;
    lifted.upright.style.visibility = shift.xM === null ? 'hidden' : 'visible';
    lifted.level.style.visibility = shift.yM === null ? 'hidden' : 'visible';
    if (shift.xM !== null)
      lifted.upright.style.transform = `translateX(${originPx.xPx + shift.xM * pxPerM}px)`;
    if (shift.yM !== null)
      lifted.level.style.transform = `translateY(${originPx.yPx - shift.yM * pxPerM}px)`;
  };
  const settle = (moving: Moving) => {
    for (const node of moving.nodes) node.style.opacity = '';
    moving.lifted?.layer.remove();
  };
  const letGo = () => {
    const moving = pressed.current?.moving ?? null;
    pressed.current = null;
    hideGuides(moving);
    if (moving) settle(moving);
  };

  return {
    /** Whether the click that follows was the end of a move. */
    wasMove: () => {
      const moved = justMoved.current;
      justMoved.current = false;
      return moved;
    },
    grips: (id: string) => ({
      onPointerDown: (event: PointerEvent<SVGElement>) => {
        if (event.button !== 0 || event.shiftKey || event.ctrlKey || event.metaKey) return;
        event.currentTarget.setPointerCapture(event.pointerId);
        justMoved.current = false;
        pressed.current = { id, fromX: event.clientX, fromY: event.clientY, moving: null };
      },
      onPointerMove: (event: PointerEvent<SVGElement>) => {
        const from = pressed.current;
        if (from?.id !== id) return;
        const [dxPx, dyPx] = [event.clientX - from.fromX, event.clientY - from.fromY];
        if (!from.moving && Math.hypot(dxPx, dyPx) < MEANT_PX) return;
        from.moving ??= begin(id, event.currentTarget.ownerSVGElement);
        const shift = { dxM: dxPx / camera.pxPerM, dyM: -dyPx / camera.pxPerM };
        const reachM = CATCHES_PX / camera.pxPerM;
        from.moving.shift = snapped(from.moving.box, shift, from.moving.lines, reachM);
        show(from.moving);
      },
      onPointerUp: () => {
        const moving = pressed.current?.moving ?? null;
        pressed.current = null;
        hideGuides(moving);
        if (!moving) return;
        justMoved.current = true;
        const done = () => settle(moving);
        void drag.onMove(moving.ids, moving.shift.dxM, moving.shift.dyM).then(done, done);
      },
      onPointerCancel: letGo,
      // The browser says so when a hold is lost in any other way.
      onLostPointerCapture: () => pressed.current?.moving && letGo(),
    }),
  };
}

function hideGuides(moving: Moving | null) {
  moving?.lifted?.upright.remove();
  moving?.lifted?.level.remove();
}

const OVER = 'pointer-events-none absolute top-0 left-0 will-change-transform';

/** Copies of things in a layer over their drawing; the things themselves fade meanwhile. */
function lift(svg: SVGSVGElement | null, nodes: SVGElement[]): Lifted | null {
  const sheet = svg?.parentElement;
  if (!svg || !sheet) return null;
  const over = (look: string) => {
    const element = document.createElement('div');
    element.setAttribute('aria-hidden', 'true');
    element.className = `${OVER} ${look}`;
    sheet.append(element);
    return element;
  };
  const layer = over('right-0 bottom-0');
  const copy = svg.cloneNode(false) as SVGSVGElement;
  for (const name of ['role', 'aria-label']) copy.removeAttribute(name);
  for (const node of nodes) {
    const twin = node.cloneNode(true) as SVGElement;
    for (const name of ['role', 'tabindex', 'data-module', 'aria-label', 'aria-checked'])
      twin.removeAttribute(name);
    copy.append(twin);
    node.style.opacity = '0.25';
  }
  layer.append(copy);
  return {
    layer,
    upright: over('invisible bottom-0 border-l border-dashed border-copper'),
    level: over('invisible right-0 border-t border-dashed border-copper'),
  };
}
