/** A roof plane drawn to scale; what is drawn on it besides is given by the step. */
import type { ReactNode } from 'react';
import type { Camera, PointM } from './camera';
import { Pane } from './Pane';
import { type PlaneScene, RoofGround } from './RoofGround';
import { North, ObstructionMark, RoofEdges } from './RoofOutline';

interface PlaneCanvasProps {
  scene: PlaneScene;
  label: string;
  padPx?: number;
  zoomable?: boolean;
  cursor?: string;
  onSpot?: ((spot: PointM) => void) | undefined;
  onHover?: ((spot: PointM) => void) | undefined;
  onBox?: ((from: PointM, to: PointM) => void) | undefined;
  /** SVG over the roof. */
  children: (camera: Camera) => ReactNode;
  /** HTML over the drawing, placed in the same pixels. */
  overlay?: (camera: Camera) => ReactNode;
  /** Drawn by the step instead of by the canvas, when they can be taken hold of. */
  ownObstructions?: boolean;
}

export function PlaneCanvas({
  scene,
  padPx = 76,
  children,
  overlay,
  ownObstructions = false,
  ...pane
}: PlaneCanvasProps) {
  return (
    <Pane
      {...pane}
      points={scene.corners}
      padPx={{ left: padPx + 26, right: padPx + 26, top: padPx, bottom: padPx - 8 }}
      {...(overlay ? { overlay: (view) => overlay(view.camera) } : {})}
    >
      {({ camera, widthPx, heightPx }) => (
        <>
          <RoofGround camera={camera} scene={scene} />
          <RoofEdges camera={camera} corners={scene.corners} edges={scene.edges} />
          {children(camera)}
          {!ownObstructions &&
            scene.obstructions.map((o) => (
              <ObstructionMark key={o.id} camera={camera} obstruction={o} named={false} />
            ))}
          {scene.note && (
            <text x={14} y={heightPx - 12} fontSize="14" className="fill-warn font-semibold">
              {scene.note}
            </text>
          )}
          <North xPx={widthPx - 36} yPx={46} azimuthDeg={scene.azimuthDeg} />
        </>
      )}
    </Pane>
  );
}
