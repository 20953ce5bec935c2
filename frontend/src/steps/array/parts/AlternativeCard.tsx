/** A layout that could be applied, as a small plan with its count. */
import { memo } from 'react';
import type { Schemas } from '@/api/client';
import { fitCamera, toScreen } from '@/drawing/camera';
import type { PlaneScene } from '@/drawing/RoofGround';
import { sizeOf } from '@/plan/modules';
import { Button } from '@/ui/Button';
import { figure, yearlyKwh } from '@/units/format';
import { formatLength, type LengthUnit } from '@/units/length';
import type { Alternative } from '../queries';

interface AlternativeCardProps {
  alternative: Alternative;
  module: Schemas['ModuleSheet'];
  legTiltDeg?: number;
  scene: PlaneScene;
  unit: LengthUnit;
  stale: boolean;
  onUse: () => void;
}

const WIDTH_PX = 176;
const HEIGHT_PX = 74;
const WAYS = { P: 'Portrait', L: 'Landscape', PL: 'Mixed rows' };
const RULES = { aligned: 'one column grid', independent: 'rows free sideways', free: 'no rows' };

export const titleOf = (a: Alternative) => (a.rule === 'free' ? 'Squeezed' : WAYS[a.ways]);

export function AlternativeCard({
  alternative,
  module,
  legTiltDeg = 0,
  scene,
  unit,
  stale,
  onUse,
}: AlternativeCardProps) {
  const proven = alternative.count === alternative.at_most;
  const { in_use: inUse } = alternative;
  const counted = alternative.rows === 1 ? '1 row' : `${alternative.rows} rows`;
  const rows = alternative.per_row ? `${counted} of ${alternative.per_row}` : counted;
  return (
    <section
      aria-label={`${titleOf(alternative)} fill, ${RULES[alternative.rule]}`}
      aria-busy={stale}
      className={`flex w-[204px] shrink-0 flex-col rounded-lg border bg-sheet px-3 py-1.5 ${inUse ? 'border-ink' : 'border-rule'} ${stale ? 'opacity-60' : ''}`}
    >
      <div className="flex items-baseline justify-between">
        <h2 className="text-sm font-semibold">{titleOf(alternative)}</h2>
        <span className="font-figure text-lg leading-none font-semibold">
          {alternative.count}
          {!proven && (
            <span className="text-sm font-normal text-ink-2">, at most {alternative.at_most}</span>
          )}
        </span>
      </div>
      <p className="text-xs text-ink-2">
        {RULES[alternative.rule]}
        {proven ? ', proven' : ''}
        {alternative.path_name && `, path at ${alternative.path_name}`}
      </p>
      <SmallPlan alternative={alternative} module={module} legTiltDeg={legTiltDeg} scene={scene} />
      <p className="font-figure text-xs whitespace-nowrap text-ink-2">
        {figure(alternative.p_dc_w / 1000, 2)} kW, about {yearlyKwh(alternative.energy_kwh)}
      </p>
      <p className="font-figure text-xs whitespace-nowrap text-ink-2">
        {rows}, rail {formatLength(alternative.rail_m, unit)}
        {alternative.posts !== null && `, ${alternative.posts} posts`}
      </p>
      <span className="mt-auto pt-0.5">
        {inUse ? (
          <span className="text-xs text-ink-2">On the roof now</span>
        ) : (
          <Button disabled={stale} onClick={onUse}>
            Use this fill
          </Button>
        )}
      </span>
    </section>
  );
}

interface SmallPlanProps {
  alternative: Alternative;
  module: Schemas['ModuleSheet'];
  legTiltDeg?: number;
  scene: PlaneScene;
}

const SmallPlan = memo(function SmallPlan({
  alternative,
  module,
  legTiltDeg = 0,
  scene,
}: SmallPlanProps) {
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
      {alternative.places.map(({ x_m: xM, y_m: yM, orientation }) => {
        const { widthM, heightM } = sizeOf(module, orientation, legTiltDeg);
        const corner = toScreen(camera, { xM, yM: yM + heightM });
        return (
          <rect
            key={`${xM} ${yM}`}
            x={corner.xPx}
            y={corner.yPx}
            width={widthM * camera.pxPerM}
            height={heightM * camera.pxPerM}
            fill="var(--color-module)"
            stroke="var(--color-ink-3)"
            strokeWidth="0.7"
          />
        );
      })}
      {scene.obstructions.map((o) => {
        const left = o.round ? o.leftM - o.widthM / 2 : o.leftM;
        const top = (o.round ? o.bottomM - o.depthM / 2 : o.bottomM) + o.depthM;
        const corner = toScreen(camera, { xM: left, yM: top });
        return (
          <rect
            key={o.id}
            x={corner.xPx}
            y={corner.yPx}
            width={Math.max(o.widthM * camera.pxPerM, 2)}
            height={Math.max(o.depthM * camera.pxPerM, 2)}
            fill="var(--color-ink)"
          />
        );
      })}
    </svg>
  );
});
