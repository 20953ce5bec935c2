/** What the rails are held to: wind and snow of the site, the maker's table or what was typed. */
import { useState } from 'react';
import type { RoofPlane, Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { TabbedCard } from '@/ui/TabbedCard';
import { TypedField } from '@/ui/TypedField';
import { echoOf } from '@/units/length';
import { forceTyped, snowTyped, windTyped } from '@/units/loads';

export function LimitsCard({ plane }: { plane: RoofPlane }) {
  const { job, option, edit } = useJob();
  const loads = job.design_loads;
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
  const [face, setFace] = useState('limits');
  const words = (
    field: Schemas['DesignLoadField'],
    label: string,
    value: string,
    source: string,
    hint: string,
  ) => (
    <TypedField
      label={label}
      value={value}
      placeholder={hint}
      width={88}
      align="right"
      showLabel
      commit={(typed) => load(field, typed, source)}
    />
  );
  const number = (value: number | null, places: number) =>
    value === null ? '' : String(Number(value.toFixed(places))).replace('-', '−');
  /** A figure of the site with who said so. */
  const sourced = (
    field: Schemas['DesignLoadField'],
    label: string,
    short: string,
    value: string,
    source: string,
    hint = 'ask',
  ) => (
    <>
      {words(field, label, value, source, hint)}
      <TypedField
        label={`${short}, said by`}
        value={source}
        placeholder="who said so"
        width={138}
        align="left"
        showLabel
        tall
        commit={(typed) => load(field, value, typed)}
      />
    </>
  );
  const limits = (
    <>
      <div className="flex flex-col gap-1">
        {sourced(
          'wind',
          'Wind',
          'Wind',
          windTyped(loads.wind_m_per_s, job.unit),
          loads.wind_source,
        )}
        {sourced(
          'snow',
          'Ground snow',
          'Snow',
          snowTyped(loads.ground_snow_pa, job.unit),
          loads.snow_source,
        )}
        {length('span', 'Longest span', 'by the table')}
        {length('bare_end', 'Longest bare end', 'by the table')}
        {length('rail_offset', 'Rail from the edge', 'mid zone')}
        {length('overhang', 'Past the last module', 'the maker’s')}
      </div>
      <p className="mt-2 text-xs text-ink-2">
        Work above 6 ft needs an anchor plan. Rafters, fasteners and drifts are for the building
        department and a licensed engineer.
      </p>
    </>
  );
  const pull = (
    <>
      <div className="flex flex-col gap-1">
        {sourced(
          'exposure',
          'Exposure',
          'Exposure',
          loads.exposure ?? '',
          loads.exposure_source,
          'B, C or D',
        )}
        {sourced(
          'roof_height',
          'Roof height',
          'Height',
          loads.roof_height?.typed ?? '',
          loads.height_source,
          'mean',
        )}
        {words(
          'gcp_field',
          'GCp in the field',
          number(loads.gcp_field, 2),
          loads.gcp_source,
          'your table',
        )}
        {sourced(
          'gcp_edge',
          'GCp at the edge',
          'GCp',
          number(loads.gcp_edge, 2),
          loads.gcp_source,
          'your table',
        )}
        {sourced(
          'wood',
          'Wood’s specific gravity',
          'Wood',
          number(loads.wood_gravity, 2),
          loads.wood_source,
          '0.42 to 0.55',
        )}
        {sourced(
          'mount_cap',
          'City’s limit, a mount',
          'City',
          forceTyped(loads.mount_cap_n, job.unit),
          loads.mount_cap_source,
          'if it has one',
        )}
      </div>
      <p className="mt-2 text-xs text-ink-2">
        A screen by ASCE 7-16 and NDS from memory, every module taken as exposed. It never says that
        a roof holds.
      </p>
    </>
  );
  return (
    <TabbedCard
      label="What rails and mounts are held to"
      className="w-[262px] shrink-0"
      value={face}
      onValueChange={setFace}
      faces={[
        { id: 'limits', title: 'Limits', body: limits },
        { id: 'loads', title: 'Loads', body: pull },
      ]}
    />
  );
}
