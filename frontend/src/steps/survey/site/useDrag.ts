/** Taking hold of a thing on a drawing: pixels while it is held, one answer when it is let go. */
import { type PointerEvent, useState } from 'react';

interface Held {
  id: string;
  fromX: number;
  fromY: number;
  dxPx: number;
  dyPx: number;
}

const MEANT_PX = 4;

export function useDrag(onDrop: (id: string, dxPx: number, dyPx: number) => void) {
  const [held, setHeld] = useState<Held | null>(null);
  return {
    shiftOf: (id: string) =>
      held?.id === id ? { dxPx: held.dxPx, dyPx: held.dyPx } : { dxPx: 0, dyPx: 0 },
    grip: (id: string) => ({
      onPointerDown: (event: PointerEvent<SVGElement>) => {
        event.stopPropagation();
        event.currentTarget.setPointerCapture(event.pointerId);
        setHeld({ id, fromX: event.clientX, fromY: event.clientY, dxPx: 0, dyPx: 0 });
      },
      onPointerMove: (event: PointerEvent<SVGElement>) => {
        if (held?.id !== id) return;
        setHeld({ ...held, dxPx: event.clientX - held.fromX, dyPx: event.clientY - held.fromY });
      },
      onPointerUp: () => {
        if (held?.id === id && Math.hypot(held.dxPx, held.dyPx) >= MEANT_PX)
          onDrop(id, held.dxPx, held.dyPx);
        setHeld(null);
      },
      onPointerCancel: () => setHeld(null),
    }),
  };
}
