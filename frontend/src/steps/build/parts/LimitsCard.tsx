/** What the rails are held to: wind and snow of the site, the maker's table or what was typed. */

import { useState } from 'react';
import type { RoofPlane, Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { TabbedCard } from '@/ui/TabbedCard';
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
  ) => (
    <>
      {words(field, label, value, source, 'ask')}
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
        {sourced('wind', 'Wind', 'Wind', windTyped, loads.wind_source)}
        {sourced('snow', 'Ground snow', 'Snow', snowTyped, loads.snow_source)}
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
        {words('exposure', 'Exposure', loads.exposure ?? '', loads.exposure_source, 'B, C or D')}
        {words(
          'roof_height',
          'Roof height',
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
        {words(
          'gcp_edge',
          'GCp at the edge',
          number(loads.gcp_edge, 2),
          loads.gcp_source,
          'your table',
        )}
        {words(
          'wood',
          'Wood’s specific gravity',
          number(loads.wood_gravity, 2),
          loads.wood_source,
          '0.42 to 0.55',
        )}
      </div>
      <p className="mt-2 text-xs text-ink-2">
        {loads.gcp_source && `GCp: ${loads.gcp_source}. `}A screen by ASCE 7-16 and NDS from memory,
        every module taken as exposed. It never says that a roof holds.
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
