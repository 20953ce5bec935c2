/** A roof plane drawn to scale that fills its box; what is drawn on it is given by the step. */
import type { ReactNode, Ref, SVGProps } from 'react';
import { useSize } from '@/ui/useSize';
import { type Camera, fitCamera, type PointM } from './camera';
import { type DrawnObstruction, North, ObstructionMark, RoofOutline } from './RoofOutline';

export interface PlaneScene {
  corners: PointM[];
  stripsM: [number, number, number, number];
  azimuthDeg: number;
  obstructions: DrawnObstruction[];
  /** Words over the roof: taken, or to stay free. */
  note: string;
}

interface PlaneCanvasProps {
  scene: PlaneScene;
  label: string;
  padPx?: number;
  /** SVG over the roof. */
  children: (camera: Camera) => ReactNode;
  /** HTML over the drawing, placed in the same pixels. */
  overlay?: (camera: Camera) => ReactNode;
  /** Drawn by the step instead of by the canvas, when they can be taken hold of. */
  ownObstructions?: boolean;
  svg?: SVGProps<SVGSVGElement> & { ref?: Ref<SVGSVGElement> };
}

export function PlaneCanvas({
  scene,
  label,
  padPx = 76,
  children,
  overlay,
  ownObstructions = false,
  svg,
}: PlaneCanvasProps) {
  const [size, measure] = useSize();
  const camera =
    size &&
    fitCamera(scene.corners, {
      widthPx: size.widthPx,
      heightPx: size.heightPx,
      paddingPx: { left: padPx + 20, right: padPx + 20, top: padPx, bottom: padPx - 8 },
    });
  return (
    <div ref={measure} className="relative min-h-0 grow overflow-hidden">
      {size && camera && (
        <>
          <svg
            width={size.widthPx}
            height={size.heightPx}
            role="group"
            aria-label={label}
            className="absolute inset-0 touch-none select-none"
            {...svg}
          >
            <RoofOutline camera={camera} corners={scene.corners} stripsM={scene.stripsM} />
            {children(camera)}
            {!ownObstructions &&
              scene.obstructions.map((o) => (
                <ObstructionMark key={o.id} camera={camera} obstruction={o} />
              ))}
            {scene.note && (
              <text x={14} y={size.heightPx - 12} fontSize="14" className="fill-warn font-semibold">
                {scene.note}
              </text>
            )}
            <North xPx={size.widthPx - 36} yPx={46} azimuthDeg={scene.azimuthDeg} />
          </svg>
          {overlay?.(camera)}
        </>
      )}
    </div>
  );
}

interface AtProps {
  xPx: number;
  yPx: number;
  children: ReactNode;
}

/** HTML centred on a point of the drawing. */
export function At({ xPx, yPx, children }: AtProps) {
  return (
    <div
      className="absolute z-10 -translate-x-1/2 -translate-y-1/2 focus-within:z-30"
      style={{ left: xPx, top: yPx }}
    >
      {children}
    </div>
  );
}
