/** What is measured of the plane besides its outline: slope, azimuth, height, free strips. */
import type { RoofPlane, Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { PlaneName } from '@/plan/PlaneTabs';
import type { PlaneSurvey } from '@/plan/scene';
import { Choice } from '@/ui/Choice';
import { TypedField } from '@/ui/TypedField';
import { areaText } from '@/units/area';
import { figure } from '@/units/format';
import { echoOf } from '@/units/length';

/** A slope typed as rise over run takes a line of its own. */
const SHORT = 7;

export const degrees = (value: number) => `${figure(value, 1).replace(/\.0$/, '')}°`;

/** How the ground falls, what is in it, and what its tables keep from. */
function GroundFields({ plane, ground }: { plane: RoofPlane; ground: Schemas['GroundArea'] }) {
  const { job, edit } = useJob();
  const field = (
    name: Schemas['GroundField'],
    label: string,
    value: string,
    width = 56,
    placeholder = '',
  ) => (
    <TypedField
      label={label}
      value={value}
      width={width}
      align="right"
      showLabel
      placeholder={placeholder}
      {...(name === 'soil' || name.endsWith('_deg')
        ? {}
        : { echo: (typed: string) => echoOf(typed, job.unit) })}
      commit={(typed) => edit({ kind: 'set-ground-field', plane_id: plane.id, field: name, typed })}
    />
  );
  return (
    <>
      {field('slope_deg', 'Falls by', degrees(ground.slope_deg))}
      {field('falls_to_deg', 'towards', degrees(ground.falls_to_deg))}
      {field('lot_distance', 'From the lot line', ground.lot_distance?.typed ?? '', 56, 'none')}
      {field('snow_depth', 'Snow lies', ground.snow_depth?.typed ?? '', 56, 'none')}
      {field('trench_depth', 'Trench deep', ground.trench_depth?.typed ?? '', 56, '?')}
      <span className="col-span-2">
        {field('soil', 'Soil', ground.soil, 210, 'what was found')}
      </span>
    </>
  );
}

export function PlaneFace({ plane, seen }: { plane: RoofPlane; seen: PlaneSurvey }) {
  const { job, brief, edit, act } = useJob();
  const kinds = [...new Set(seen.edges.map((e) => e.kind))];
  const field = (
    name: Schemas['PlaneField'],
    label: string,
    value: string,
    more: { echo?: (typed: string) => string; placeholder?: string; width?: number } = {},
  ) => (
    <TypedField
      label={label}
      value={value}
      width={more.width ?? 56}
      align="right"
      showLabel
      {...(more.placeholder ? { placeholder: more.placeholder } : {})}
      {...(more.echo ? { echo: more.echo } : {})}
      commit={(typed) => edit({ kind: 'set-plane-field', plane_id: plane.id, field: name, typed })}
    />
  );
  const length = (typed: string) => echoOf(typed, job.unit);
  const { compass_deg: compass } = plane;
  return (
    <>
      <div className="mb-1 flex items-baseline justify-between text-sm font-semibold">
        <PlaneName />
        <span className="text-xs font-normal text-ink-2">
          {seen.closing === 'open'
            ? 'not closed yet'
            : areaText(seen.area_m2, seen.area_sd_m2, job.unit)}
        </span>
      </div>
      <div className="grid grid-cols-2 gap-x-4 gap-y-[3px] whitespace-nowrap">
        {plane.ground ? (
          <GroundFields plane={plane} ground={plane.ground} />
        ) : (
          <>
            <span className={plane.slope_typed.length > SHORT ? 'col-span-2' : ''}>
              {field('slope', `Slope ${figure(plane.slope_deg, 1)}°`, plane.slope_typed, {
                placeholder: 'guess',
                width: plane.slope_typed.length > SHORT ? 150 : 56,
              })}
            </span>
            {field('eave_height', 'Eave height', plane.eave_height?.typed ?? '', {
              echo: length,
              placeholder: 'guess',
            })}
          </>
        )}
        <span className="col-span-2">
          {field(
            'azimuth',
            plane.ground && compass === null
              ? 'Rows face, true'
              : compass === null
                ? 'Azimuth, true'
                : `Azimuth ${degrees(plane.azimuth_deg)} true`,
            !plane.azimuth_given
              ? ''
              : compass === null
                ? degrees(plane.azimuth_deg)
                : `${degrees(compass)} compass`,
            { placeholder: `${degrees(plane.azimuth_deg)}?`, width: 118 },
          )}
        </span>
        <span className="flex items-center justify-between gap-2 text-sm">
          Lengths
          <Choice
            label="Lengths are"
            value={plane.lengths}
            items={[
              { value: 'slope', label: 'taped' },
              { value: 'plan', label: 'off a plan' },
            ]}
            onChange={(basis) =>
              act({
                kind: 'set-length-basis',
                plane_id: plane.id,
                basis: basis as Schemas['LengthBasis'],
              })
            }
          />
        </span>
        {kinds.map((kind) => (
          <span key={kind}>
            {field(
              `setback_${kind}`,
              `${kind[0]?.toUpperCase()}${kind.slice(1)} setback`,
              plane.setbacks[kind].typed,
              {
                echo: length,
              },
            )}
          </span>
        ))}
      </div>
      <p className="mt-1 text-xs text-ink-2">
        {compass === null || brief.declination_deg === null
          ? "Slope as 26.6, 6:12 or 7' 6\" over 15'. Azimuth true, or as read: “168.5 compass”."
          : `Compass ${degrees(compass)} ${brief.declination_deg < 0 ? '−' : '+'} ${degrees(Math.abs(brief.declination_deg))} declination on ${job.site.survey_day} (${brief.declination_model}).`}
      </p>
    </>
  );
}
