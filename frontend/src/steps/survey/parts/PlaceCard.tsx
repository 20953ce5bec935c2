/** Where the house stands, whose rules hold, and which climate stands in for weather. */
import { useQuery } from '@tanstack/react-query';
import type { Edit, Schemas } from '@/api/client';
import { shelfQuery } from '@/api/queries';
import { useJob } from '@/plan/JobContext';
import { Card } from '@/ui/Card';
import { Choice } from '@/ui/Choice';
import { TypedField } from '@/ui/TypedField';
import { figure } from '@/units/format';
import { formatLength } from '@/units/length';

const PACKS = [
  { value: 'us', label: 'US rules' },
  { value: 'iec', label: 'IEC rules' },
  { value: 'au-nz', label: 'AU/NZ rules' },
];

export function PlaceCard() {
  const { job, edit, act } = useJob();
  const { site } = job;
  const shelf = useQuery(shelfQuery);
  const climates = shelf.data?.climates ?? [{ id: site.climate_id, title: site.climate_id }];
  const place = (change: Partial<Extract<Edit, { kind: 'set-place' }>>) =>
    ({
      kind: 'set-place',
      place: site.place,
      climate_id: site.climate_id,
      code_pack: site.code_pack,
      dwelling: site.dwelling,
      ...change,
    }) as const;
  const number = (field: Schemas['SiteField'], label: string, value: string) => (
    <TypedField
      label={label}
      value={value}
      width={64}
      align="right"
      showLabel
      commit={(typed) => edit({ kind: 'set-site-field', field, typed, source: '' })}
    />
  );
  return (
    <Card title="Place and rules" aside="weather is a stand-in" className="w-[262px] shrink-0">
      <div className="flex flex-col gap-[3px]">
        <TypedField
          label="Place"
          value={site.place}
          placeholder="not given"
          width={178}
          align="right"
          showLabel
          commit={(typed) => edit(place({ place: typed }))}
        />
        <div className="grid grid-cols-2 gap-2">
          {number('latitude', 'Lat. N', figure(site.latitude_deg, 2))}
          {number('longitude', 'Lon. E', figure(site.longitude_deg, 2))}
        </div>
        <div className="grid grid-cols-2 gap-2">
          {number(
            'elevation',
            'Elev.',
            job.unit === 'm'
              ? `${figure(site.elevation_m)} m`
              : formatLength(site.elevation_m, 'ft').replace(/ .*/, ''),
          )}
          {number('utc_offset', 'UTC', figure(site.utc_offset_h, 1).replace(/\.0$/, ''))}
        </div>
        <Choice
          label="Climate type"
          value={site.climate_id}
          items={climates.map((c) => ({ value: c.id, label: c.title }))}
          onChange={(climate_id) => act(place({ climate_id }))}
        />
        <div className="flex gap-2">
          <Choice
            label="Code family"
            value={site.code_pack}
            items={PACKS}
            onChange={(code) => act(place({ code_pack: code as Schemas['CodePack'] }))}
            className="grow"
          />
          <Choice
            label="Kind of building"
            value={site.dwelling ? 'yes' : 'no'}
            items={[
              { value: 'yes', label: 'dwelling' },
              { value: 'no', label: 'other' },
            ]}
            onChange={(dwelling) => act(place({ dwelling: dwelling === 'yes' }))}
          />
        </div>
      </div>
    </Card>
  );
}
