/**
 * Taking hold of a thing on a drawing: it is moved on the screen itself while it is held, so that
 * the drawing need not be drawn again for each pixel, and handed over once when it is let go.
 */
import { type PointerEvent, useRef } from 'react';

interface Held {
  id: string;
  fromX: number;
  fromY: number;
}

const MEANT_PX = 4;

export function useDrag(onDrop: (id: string, dxPx: number, dyPx: number) => Promise<unknown>) {
  const held = useRef<Held | null>(null);
  const shiftOf = (event: PointerEvent<SVGElement>) => ({
    dxPx: event.clientX - (held.current?.fromX ?? event.clientX),
    dyPx: event.clientY - (held.current?.fromY ?? event.clientY),
  });
  return (id: string) => ({
    onPointerDown: (event: PointerEvent<SVGElement>) => {
      event.stopPropagation();
      event.currentTarget.setPointerCapture(event.pointerId);
      held.current = { id, fromX: event.clientX, fromY: event.clientY };
    },
    onPointerMove: (event: PointerEvent<SVGElement>) => {
      if (held.current?.id !== id) return;
      const { dxPx, dyPx } = shiftOf(event);
      event.currentTarget.style.transform = `translate(${dxPx}px, ${dyPx}px)`;
    },
    onPointerUp: (event: PointerEvent<SVGElement>) => {
      const element = event.currentTarget;
      const { dxPx, dyPx } = shiftOf(event);
      const letGo = () => {
        element.style.transform = '';
      };
      if (held.current?.id === id && Math.hypot(dxPx, dyPx) >= MEANT_PX)
        void onDrop(id, dxPx, dyPx).then(letGo, letGo);
      else letGo();
      held.current = null;
    },
    onPointerCancel: (event: PointerEvent<SVGElement>) => {
      event.currentTarget.style.transform = '';
      held.current = null;
    },
  });
}
