/** The site at a moment: shadows to scale on the ground and on each plane, light on each module. */

import type { Camera } from '@/drawing/camera';
import { RoofEdges } from '@/drawing/RoofOutline';
import { shadeTint } from '@/drawing/shadeTint';
import { useJob } from '@/plan/JobContext';
import { ShadeMark } from '@/plan/site/ShadeMark';
import { ringPoints, stripsOf } from '@/plan/site/siteModules';
import { pressable } from '@/ui/pressable';
import { figure } from '@/units/format';
import { type Moment, meanOf } from '../moments';
import type { SunDay } from '../queries';

interface ShadowPlanProps {
  camera: Camera;
  day: SunDay;
  moment: Moment;
  chosenId: string;
  nameOf: (id: string) => string;
  onChoose: (id: string) => void;
}

export function ShadowPlan({ camera, day, moment, chosenId, nameOf, onChoose }: ShadowPlanProps) {
  const { job, survey, option } = useJob();
  const upright = new Map(
    option.arrays.flatMap((a) => a.modules.map((m) => [m.id, m.orientation === 'P'] as const)),
  );
  // The higher plane is drawn over the lower one, with the shadows that fall on it.
  const planes = [...survey.planes].sort((a, b) => heightOf(a) - heightOf(b));
  return (
    <>
      <g pointerEvents="none">
        <Shadows camera={camera} shadows={moment.ground} />
      </g>
      {job.survey.shade_sources.map((source, i) => {
        const view = survey.shade[i];
        return (
          view && (
            <ShadeMark key={source.id} camera={camera} source={source} view={view} chosen={false} />
          )
        );
      })}
      {planes.map((seen) => {
        const ring = seen.site.map((c) => [c.east_m, c.north_m] as const);
        const fallen = moment.planes.find((p) => p.plane_id === seen.plane_id);
        const clip = `under-${seen.plane_id}`;
        return (
          <g key={seen.plane_id}>
            <clipPath id={clip}>
              <polygon points={ringPoints(camera, ring)} />
            </clipPath>
            <polygon
              points={ringPoints(camera, ring)}
              fill="var(--color-sheet)"
              pointerEvents="none"
            />
            {day.modules.map((m, i) => {
              if (m.plane_id !== seen.plane_id) return null;
              const lit = moment.lit_frac[i] ?? [];
              const told = `${figure(meanOf(lit) * 100)} % of the beam`;
              return (
                <g
                  key={m.module_id}
                  role="button"
                  aria-label={`${nameOf(m.module_id)}: ${told}`}
                  aria-pressed={m.module_id === chosenId}
                  className="cursor-pointer"
                  {...pressable(() => onChoose(m.module_id))}
                >
                  {stripsOf(m.ring, lit.length, upright.get(m.module_id) ?? true).map(
                    (strip, s) => (
                      <polygon
                        // biome-ignore lint/suspicious/noArrayIndexKey: substrings have no other name
                        key={s}
                        points={ringPoints(camera, strip)}
                        fill={shadeTint(1 - (lit[s] ?? 0), 1).fill}
                      />
                    ),
                  )}
                  <polygon
                    points={ringPoints(camera, m.ring)}
                    fill="none"
                    stroke={m.module_id === chosenId ? 'var(--color-copper)' : 'var(--color-ink)'}
                    strokeWidth={m.module_id === chosenId ? 3 : 0.8}
                  />
                </g>
              );
            })}
            <g clipPath={`url(#${clip})`} pointerEvents="none">
              {fallen?.dark ? (
                <polygon points={ringPoints(camera, ring)} fill="var(--color-ink)" opacity="0.3" />
              ) : (
                <Shadows camera={camera} shadows={fallen?.shadows ?? []} />
              )}
            </g>
            <g pointerEvents="none">
              <RoofEdges
                camera={camera}
                corners={seen.site.map((c) => ({ xM: c.east_m, yM: c.north_m }))}
                edges={seen.edges.map((e) => ({ kind: e.kind, state: e.state, stripM: 0 }))}
              />
            </g>
          </g>
        );
      })}
    </>
  );
}

type Seen = ReturnType<typeof useJob>['survey']['planes'][number];
const heightOf = (seen: Seen) =>
  seen.site.reduce((sum, c) => sum + c.up_m, 0) / Math.max(1, seen.site.length);

/** Shadows of one strength are one shape: where two overlap it is no darker. */
function Shadows({ camera, shadows }: { camera: Camera; shadows: Moment['ground'] }) {
  const path = (soft: boolean) =>
    shadows
      .filter((s) => s.soft === soft)
      .map((s) => `M${ringPoints(camera, s.ring).replaceAll(' ', 'L')}Z`)
      .join('');
  return (
    <>
      <g opacity="0.22">
        <path d={path(true)} fill="var(--color-ink)" />
      </g>
      <g opacity="0.34">
        <path d={path(false)} fill="var(--color-ink)" />
      </g>
    </>
  );
}
