/** Where the house stands: picked or typed; zone, declination and climate follow. */
import { useQuery } from '@tanstack/react-query';
import type { Edit, Schemas } from '@/api/client';
import { shelfQuery } from '@/api/queries';
import { useJob } from '@/plan/JobContext';
import { TemperatureField } from '@/plan/TemperatureField';
import { Choice } from '@/ui/Choice';
import { figure } from '@/units/format';
import { FieldRow, Fields, Warned } from './fields';
import { PlaceSearch } from './PlaceSearch';

const PACKS = [
  { value: 'us', label: 'US rules' },
  { value: 'iec', label: 'IEC rules' },
  { value: 'au-nz', label: 'AU/NZ rules' },
  { value: 'uk', label: 'UK rules' },
];
const SCHOOLS = [
  { value: 'yearly-lows', label: 'Strings held to the coldest air' },
  { value: 'record-low', label: 'Strings held to the record low' },
  { value: 'fixed', label: 'Strings held to a fixed −15 °C' },
];
const M_PER_FT = 0.3048;
/** The climate is left to be guessed. */
const BY_PLACE = 'by-place';

export function PlaceSection() {
  const { job, brief, edit, act } = useJob();
  const { site } = job;
  const shelf = useQuery(shelfQuery);
  const climates = shelf.data?.climates ?? [{ id: site.climate_id, title: site.climate_id }];
  const place = (change: Partial<Extract<Edit, { kind: 'set-place' }>>) =>
    ({
      kind: 'set-place',
      place: site.place,
      climate_id: site.climate_given ? site.climate_id : '',
      code_pack: site.code_pack,
      dwelling: site.dwelling,
      ...change,
    }) as const;
  const set = (field: Schemas['SiteField']) => (typed: string) =>
    edit({ kind: 'set-site-field', field, typed, source: '' });
  const elevation =
    site.elevation_m === null
      ? ''
      : job.unit === 'm'
        ? `${figure(site.elevation_m)} m`
        : `${figure(site.elevation_m / M_PER_FT)} ft`;
  const declination = brief.declination_deg;
  return (
    <div className="flex flex-wrap gap-x-6 gap-y-3">
      <Fields title="Place" width={286}>
        <PlaceSearch />
        <FieldRow
          label="Name"
          value={site.place}
          placeholder="not given"
          width={196}
          words
          commit={(typed) => edit(place({ place: typed }))}
        />
        <FieldRow
          label="Lat., lon."
          value={`${figure(site.latitude_deg, 3)}, ${figure(site.longitude_deg, 3)}`}
          width={196}
          words
          commit={(typed) => edit({ kind: 'set-coordinates', typed })}
        />
        <FieldRow
          label="Elevation"
          value={elevation}
          placeholder="not given"
          width={110}
          commit={set('elevation')}
        />
        <FieldRow
          label="Day of the survey"
          value={site.survey_day ?? ''}
          placeholder="not given"
          width={110}
          commit={set('survey_day')}
        />
        <FieldRow
          label="Standard time, h from UTC"
          value={figure(site.utc_offset_h, 2).replace(/\.?0+$/, '')}
          width={64}
          commit={set('utc_offset')}
        />
        <p className="text-xs text-ink-2">
          {site.time_zone || 'No zone yet'}.{' '}
          {declination !== null
            ? `A compass points ${figure(Math.abs(declination), 1)}° ${declination >= 0 ? 'east' : 'west'} of true north (${brief.declination_model}).`
            : 'Declination: give the day of the survey, 2025 to 2029.'}
        </p>
      </Fields>
      <Fields title="Design temperatures" width={250}>
        <TemperatureField which="coldest" sourced />
        <TemperatureField which="record_low" sourced />
        <TemperatureField which="hottest" sourced />
        <Choice
          label="Which coldest air counts"
          value={site.cold_school}
          items={SCHOOLS}
          onChange={(school) =>
            void act({
              kind: 'set-cold-school',
              school: school as Schemas['ColdSchool'],
            })
          }
        />
      </Fields>
      <Fields title="Weather and rules" width={222}>
        <Choice
          label="Climate type"
          value={site.climate_given ? site.climate_id : BY_PLACE}
          items={[
            {
              value: BY_PLACE,
              label: site.climate_given
                ? 'Guessed from the place'
                : `${climates.find((c) => c.id === site.climate_id)?.title ?? ''} (a guess)`,
            },
            ...climates.map((c) => ({ value: c.id, label: c.title })),
          ]}
          onChange={(id) => act(place({ climate_id: id === BY_PLACE ? '' : id }))}
        />
        <Choice
          label="Code family"
          value={site.code_pack}
          items={PACKS}
          onChange={(code) => act(place({ code_pack: code as Schemas['CodePack'] }))}
        />
        <Choice
          label="Kind of building"
          value={site.dwelling ? 'yes' : 'no'}
          items={[
            { value: 'yes', label: 'dwelling' },
            { value: 'no', label: 'other building' },
          ]}
          onChange={(dwelling) => act(place({ dwelling: dwelling === 'yes' }))}
        />
        <Warned>Weather is a stand-in: drawn from the climate’s normals, not measured.</Warned>
        {brief.caveats.map((caveat) => (
          <p key={caveat} className="text-xs text-ink-2">
            {caveat}.
          </p>
        ))}
      </Fields>
    </div>
  );
}
