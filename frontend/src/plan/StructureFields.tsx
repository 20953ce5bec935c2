/** What mounts will find under a plane, each asked once wherever it is wanted. */
import type { RoofPlane, Schemas } from '@/api/client';
import { Choice } from '@/ui/Choice';
import { TypedField } from '@/ui/TypedField';
import { echoOf } from '@/units/length';
import { useJob } from './JobContext';

const COVERINGS: [Schemas['Covering'], string][] = [
  ['shingle', 'shingle'],
  ['tile', 'tile'],
  ['standing-seam', 'standing seam'],
  ['ribbed-metal', 'ribbed metal'],
  ['membrane', 'membrane'],
];
const CARRIED: [Schemas['Framing'], string][] = [
  ['rafters', 'rafters'],
  ['trusses', 'trusses'],
];
const NOT_LOOKED = 'unknown';
type Field = Schemas['StructureField'];

interface ChoiceProps {
  plane: RoofPlane;
  field: 'covering' | 'framing';
}

export function StructureChoice({ plane, field }: ChoiceProps) {
  const { act } = useJob();
  const label = field === 'covering' ? 'Covering' : 'Carried by';
  const items: [string, string][] = field === 'covering' ? COVERINGS : CARRIED;
  return (
    <span className="flex items-center justify-between gap-2 text-sm">
      {label}
      <Choice
        label={label}
        value={plane.structure[field] ?? NOT_LOOKED}
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
}

interface LengthProps {
  plane: RoofPlane;
  field: Exclude<Field, 'covering' | 'framing' | 'rafter_size'>;
  label: string;
  placeholder?: string;
}

export function StructureLength({ plane, field, label, placeholder = '' }: LengthProps) {
  const { job, edit } = useJob();
  return (
    <TypedField
      label={label}
      value={plane.structure[field]?.typed ?? ''}
      placeholder={placeholder}
      width={72}
      align="right"
      showLabel
      echo={(typed) => echoOf(typed, job.unit)}
      commit={(typed) => edit({ kind: 'set-structure', plane_id: plane.id, field, typed })}
    />
  );
}
