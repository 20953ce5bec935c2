/** What mounts will find: covering, seams or ribs, rafters or trusses, purlins. */
import type { RoofPlane, Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { Choice } from '@/ui/Choice';
import { TypedField } from '@/ui/TypedField';
import { echoOf } from '@/units/length';

const COVERINGS: [Schemas['Covering'], string][] = [
  ['shingle', 'shingle'],
  ['tile', 'tile'],
  ['standing-seam', 'standing seam'],
  ['ribbed-metal', 'ribbed metal'],
  ['membrane', 'membrane'],
];
const NOT_LOOKED = 'unknown';
type Field = Schemas['StructureField'];

export function UnderItFace({ plane }: { plane: RoofPlane }) {
  const { job, edit, act } = useJob();
  const { structure } = plane;
  const set = (field: Field, typed: string) =>
    edit({ kind: 'set-structure', plane_id: plane.id, field, typed });
  const length = (
    field: Exclude<Field, 'covering' | 'framing' | 'rafter_size'>,
    label: string,
    placeholder = '',
  ) => (
    <TypedField
      label={label}
      value={structure[field]?.typed ?? ''}
      placeholder={placeholder}
      width={72}
      align="right"
      showLabel
      echo={(typed) => echoOf(typed, job.unit)}
      commit={(typed) => set(field, typed)}
    />
  );
  const choose = (field: 'covering' | 'framing', label: string, items: [string, string][]) => (
    <span className="flex items-center justify-between gap-2 text-sm">
      {label}
      <Choice
        label={label}
        value={structure[field] ?? NOT_LOOKED}
        items={[
          { value: NOT_LOOKED, label: 'not looked yet' },
          ...items.map(([value, words]) => ({ value, label: words })),
        ]}
        onChange={(value) =>
          act({
            kind: 'set-structure',
            plane_id: plane.id,
            field,
            typed: value === NOT_LOOKED ? '' : value,
          })
        }
      />
    </span>
  );
  const usual = job.unit === 'ft' ? '16" or 24"' : '400mm';
  return (
    <div className="grid grid-cols-2 gap-x-4 gap-y-[3px]">
      {choose('covering', 'Covering', COVERINGS)}
      {choose('framing', 'Carried by', [
        ['rafters', 'rafters'],
        ['trusses', 'trusses'],
      ])}
      {structure.covering === 'standing-seam' && (
        <>
          {length('seam_spacing', 'Seams every')}
          {length('first_rib', 'First seam')}
        </>
      )}
      {structure.covering === 'ribbed-metal' && (
        <>
          {length('rib_spacing', 'Ribs every')}
          {length('first_rib', 'First rib')}
          {length('rib_height', 'Rib height')}
          {length('cover_width', 'Cover width')}
        </>
      )}
      {length('rafter_spacing', 'Spacing', usual)}
      {length('first_rafter', 'First from left')}
      <TypedField
        label="Size"
        value={structure.rafter_size}
        placeholder="2 × 8"
        width={72}
        align="right"
        showLabel
        commit={(typed) => set('rafter_size', typed)}
      />
      {length('rafter_span', 'Span')}
      {length('purlin_spacing', 'Purlins every')}
      {length('first_purlin', 'First from eave')}
      <p className="col-span-2 text-xs text-ink-2">
        Tap for rafters, then prove one by its nails: mounts that miss wood hold nothing. Loads are
        for the engineer and the authority having jurisdiction.
      </p>
    </div>
  );
}
