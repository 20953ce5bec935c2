/** A fill that could be applied, as a small plan with its count. */
import type { Schemas } from '@/api/client';
import { fitCamera, toScreen } from '@/drawing/camera';
import type { PlaneScene } from '@/drawing/RoofGround';
import { Button } from '@/ui/Button';
import { figure } from '@/units/format';

interface AlternativeCardProps {
  alternative: Schemas['Alternative'];
  scene: PlaneScene;
  inUse: boolean;
  stale: boolean;
  onUse: () => void;
}

const WIDTH_PX = 176;
const HEIGHT_PX = 84;

export function AlternativeCard({ alternative, scene, inUse, stale, onUse }: AlternativeCardProps) {
  const way = alternative.orientation === 'P' ? 'Portrait' : 'Landscape';
  const proven = alternative.count === alternative.at_most;
  return (
    <section
      aria-label={`${way} fill`}
      aria-busy={stale}
      className={`flex w-[212px] shrink-0 flex-col rounded-lg border bg-sheet px-3 py-2.5 ${inUse ? 'border-ink' : 'border-rule'} ${stale ? 'opacity-60' : ''}`}
    >
      <div className="flex items-baseline justify-between">
        <h2 className="text-sm font-semibold">{way}</h2>
        <span className="font-figure text-lg font-semibold">{alternative.count}</span>
      </div>
      <SmallPlan alternative={alternative} scene={scene} />
      <p className="mt-1 text-xs text-ink-2">
        {figure(alternative.p_dc_w / 1000, 2)} kW, {alternative.rows}{' '}
        {alternative.rows === 1 ? 'row' : 'rows'},{' '}
        {proven ? 'proven' : `at most ${alternative.at_most}`}
      </p>
      <span className="mt-auto pt-1">
        {inUse ? (
          <span className="text-xs text-ink-2">On the roof now</span>
        ) : (
          <Button onClick={onUse}>Use this fill</Button>
        )}
      </span>
    </section>
  );
}

function SmallPlan({
  alternative,
  scene,
}: {
  alternative: Schemas['Alternative'];
  scene: PlaneScene;
}) {
  const pad = { left: 2, right: 2, top: 3, bottom: 3 };
  const camera = fitCamera(scene.corners, {
    widthPx: WIDTH_PX,
    heightPx: HEIGHT_PX,
    paddingPx: pad,
  });
  const outline = scene.corners.map((c) => toScreen(camera, c));
  return (
    <svg width={WIDTH_PX} height={HEIGHT_PX} className="shrink-0" aria-hidden="true">
      <polygon
        points={outline.map((p) => `${p.xPx},${p.yPx}`).join(' ')}
        fill="none"
        stroke="var(--color-field)"
      />
      {alternative.places.map(({ x_m: xM, y_m: yM }) => {
        const corner = toScreen(camera, { xM, yM: yM + alternative.height_m });
        return (
          <rect
            key={`${xM} ${yM}`}
            x={corner.xPx}
            y={corner.yPx}
            width={alternative.width_m * camera.pxPerM}
            height={alternative.height_m * camera.pxPerM}
            fill="var(--color-module)"
            stroke="var(--color-ink-3)"
            strokeWidth="0.7"
          />
        );
      })}
    </svg>
  );
}
