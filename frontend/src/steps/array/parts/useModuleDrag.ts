/**
 * Moving modules with the pointer: on the screen itself while they are held, caught by the lines
 * around them, and handed over once when they are let go.
 */
import { type PointerEvent, type RefObject, useRef } from 'react';
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
import { boxOf } from '../hand';

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
  box: ReturnType<typeof boxAround>;
  lines: SnapLines;
  shift: Snapped;
}

interface ModuleDrag {
  camera: Camera;
  scene: PlaneScene;
  array: Schemas['PlaneArray'];
  module: Schemas['ModuleSheet'];
  held: readonly string[];
  onMove: (ids: string[], rightM: number, upM: number) => Promise<unknown>;
  /** The two lines that show what was caught. */
  guides: RefObject<SVGGElement | null>;
}

export function useModuleDrag(drag: ModuleDrag) {
  const { camera, scene, array, module, held } = drag;
  const pressed = useRef<Pressed | null>(null);
  const justMoved = useRef(false);

  const begin = (id: string, svg: SVGSVGElement | null): Moving => {
    const ids = held.includes(id) ? [...held] : [id];
    const mine = array.modules.filter((m) => ids.includes(m.id)).map((m) => boxOf(m, module));
    const others = array.modules.filter((m) => m.present && !ids.includes(m.id));
    const box = boxAround(mine);
    return {
      ids,
      nodes: ids.flatMap((i) => svg?.querySelector<SVGElement>(`[data-module="${i}"]`) ?? []),
      box,
      lines: snapLines(box, {
        others: others.map((m) => boxOf(m, module)),
        strips: stripLines(scene.corners, scene.edges),
        raftersXM: scene.raftersXM,
        gapInRowM: array.gap_in_row.value_m,
        gapBetweenRowsM: array.gap_between_rows.value_m,
      }),
      shift: { dxM: 0, dyM: 0, xM: null, yM: null },
    };
  };
  const show = (moving: Moving | null) => {
    const [upright, level] = drag.guides.current?.children ?? [];
    const { pxPerM, originPx } = camera;
    const { xM = null, yM = null } = moving?.shift ?? {};
    upright?.setAttribute('visibility', xM === null ? 'hidden' : 'visible');
    level?.setAttribute('visibility', yM === null ? 'hidden' : 'visible');
    if (xM !== null)
      upright?.setAttribute('transform', `translate(${originPx.xPx + xM * pxPerM} 0)`);
    if (yM !== null) level?.setAttribute('transform', `translate(0 ${originPx.yPx - yM * pxPerM})`);
    if (!moving) return;
    const [x, y] = [moving.shift.dxM * pxPerM, -moving.shift.dyM * pxPerM];
    for (const node of moving.nodes) node.style.transform = `translate(${x}px, ${y}px)`;
  };
  const settle = (moving: Moving) => {
    for (const node of moving.nodes) node.style.transform = '';
  };
  const letGo = () => {
    const moving = pressed.current?.moving ?? null;
    pressed.current = null;
    show(null);
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
        show(null);
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
