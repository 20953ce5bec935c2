/** What the rails are held to: wind and snow of the site, the maker's table or what was typed. */
import type { RoofPlane, Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { Card } from '@/ui/Card';
import { TypedField } from '@/ui/TypedField';
import { figure } from '@/units/format';
import { echoOf } from '@/units/length';

const MPH_PER_M_PER_S = 1 / 0.44704;
const PSF_PER_PA = 1 / 47.880259;

export function LimitsCard({ plane }: { plane: RoofPlane }) {
  const { job, option, edit } = useJob();
  const loads = job.design_loads;
  const feet = job.unit === 'ft';
  const racked = option.racking.planes.find((p) => p.plane_id === plane.id);
  const load = (field: Schemas['DesignLoadField'], typed: string, source: string) =>
    edit({ kind: 'set-design-load', field, typed, source });
  const length = (field: Schemas['RackingField'], label: string, hint: string) => (
    <TypedField
      label={label}
      value={racked?.[field]?.typed ?? ''}
      placeholder={hint}
      width={88}
      align="right"
      showLabel
      echo={(typed) => echoOf(typed, job.unit)}
      commit={(typed) =>
        edit({
          kind: 'set-racking-field',
          option_id: option.id,
          plane_id: plane.id,
          field,
          typed,
        })
      }
    />
  );
  const wind = loads.wind_m_per_s;
  const snow = loads.ground_snow_pa;
  const windTyped =
    wind === null ? '' : feet ? `${figure(wind * MPH_PER_M_PER_S)} mph` : `${figure(wind, 1)} m/s`;
  const snowTyped =
    snow === null
      ? ''
      : feet
        ? `${figure(snow * PSF_PER_PA)} psf`
        : `${figure(snow / 1000, 2)} kPa`;
  return (
    <Card title="Limits" scrolls className="w-[262px] shrink-0">
      <div className="flex flex-col gap-1">
        <TypedField
          label="Wind"
          value={windTyped}
          placeholder="ask"
          width={88}
          align="right"
          showLabel
          commit={(typed) => load('wind', typed, loads.wind_source)}
        />
        <TypedField
          label="Wind, said by"
          value={loads.wind_source}
          placeholder="who said so"
          width={138}
          align="left"
          showLabel
          tall
          commit={(typed) => load('wind', windTyped, typed)}
        />
        <TypedField
          label="Ground snow"
          value={snowTyped}
          placeholder="ask"
          width={88}
          align="right"
          showLabel
          commit={(typed) => load('snow', typed, loads.snow_source)}
        />
        <TypedField
          label="Snow, said by"
          value={loads.snow_source}
          placeholder="who said so"
          width={138}
          align="left"
          showLabel
          tall
          commit={(typed) => load('snow', snowTyped, typed)}
        />
        {length('span', 'Longest span', 'by the table')}
        {length('bare_end', 'Longest bare end', 'by the table')}
        {length('rail_offset', 'Rail from the edge', 'mid zone')}
        {length('overhang', 'Past the last module', 'the maker’s')}
      </div>
      <p className="mt-2 text-xs text-ink-2">
        Nothing here says that a roof holds: rafters, fasteners and snow drifts are for the building
        department and a licensed engineer. Work above 6 ft needs an anchor plan.
      </p>
    </Card>
  );
}
