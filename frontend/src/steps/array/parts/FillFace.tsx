/** What a fill is to look like: gaps, shortest run, a mirrored look. */
import type { Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { Button } from '@/ui/Button';
import { Choice, type ChoiceItem } from '@/ui/Choice';
import { Toggle } from '@/ui/Toggle';
import { TypedField } from '@/ui/TypedField';
import { echoOf } from '@/units/length';
import type { Layouts } from '../useLayouts';

interface FillFaceProps {
  planeId: string;
  array: Schemas['PlaneArray'] | undefined;
  module: Schemas['ModuleSheet'];
  /** The shelf, what lies in stock first. */
  modules: ChoiceItem[];
  proving: Layouts['proving'];
  squeeze: boolean;
  onSqueeze: (on: boolean) => void;
}

const AS_OPTION = 'as-option';
/** As the server starts an array. */
const USUAL_GAP = '20 mm';
const MOUNTINGS = [
  { value: 'flush', label: 'Flush: runs hot' },
  { value: 'low-stand-off', label: 'Stand-off, under 150 mm' },
  { value: 'stand-off', label: 'Stand-off' },
  { value: 'open-rack', label: 'Open rack: cool' },
];

export function FillFace({
  planeId,
  array,
  module,
  modules,
  proving,
  squeeze,
  onSqueeze,
}: FillFaceProps) {
  const { job, option, edit, act } = useJob();
  const field = (name: Schemas['ArrayField'], label: string, value: string, length: boolean) => (
    <TypedField
      label={label}
      value={value}
      width={60}
      align="right"
      showLabel
      {...(length ? { echo: (typed: string) => echoOf(typed, job.unit) } : {})}
      commit={(typed) =>
        edit({
          kind: 'set-array-field',
          option_id: option.id,
          plane_id: planeId,
          field: name,
          typed,
        })
      }
    />
  );
  return (
    <div className="flex flex-col gap-1">
      <div className="grid grid-cols-2 gap-x-3 gap-y-[3px] whitespace-nowrap">
        {field('gap_in_row', 'Gap in row', array?.gap_in_row.typed ?? USUAL_GAP, true)}
        {field('gap_between_rows', 'Between', array?.gap_between_rows.typed ?? USUAL_GAP, true)}
        {field('shortest_run', 'Shortest run', String(array?.shortest_run ?? 1), false)}
        <Toggle
          on={array?.symmetric ?? false}
          onChange={(on) =>
            act({ kind: 'set-symmetric', option_id: option.id, plane_id: planeId, on })
          }
        >
          Mirrored rows
        </Toggle>
        {field('leg_tilt', 'Tilt-leg angle, °', String(array?.leg_tilt_deg ?? 0), false)}
        <Choice
          label="How the modules are mounted"
          value={array?.mounting ?? 'stand-off'}
          items={MOUNTINGS}
          onChange={(mounting) =>
            void act({
              kind: 'set-mounting',
              option_id: option.id,
              plane_id: planeId,
              mounting: mounting as Schemas['Mounting'],
            })
          }
        />
      </div>
      {(array?.leg_tilt_deg ?? 0) > 0 && (
        <span>
          <Button
            onClick={() =>
              void act({ kind: 'space-rows', option_id: option.id, plane_id: planeId })
            }
          >
            Row spacing for the shortest day
          </Button>
        </span>
      )}
      <Choice
        label="Module on this plane"
        value={array?.module_id ?? AS_OPTION}
        items={[{ value: AS_OPTION, label: 'Module here: as the option has it' }, ...modules]}
        onChange={(id) =>
          void act({
            kind: 'choose-plane-module',
            option_id: option.id,
            plane_id: planeId,
            module_id: id === AS_OPTION ? null : id,
          })
        }
      />
      <Toggle on={squeeze} onChange={onSqueeze}>
        Also squeeze in without rows
      </Toggle>
      {proving && (
        <p role="status" className="flex items-center gap-2 text-xs">
          Proving: {proving.proven} of {proving.of} kinds settled
          <Button onClick={proving.stop}>Stop</Button>
        </p>
      )}
      <p className="text-xs text-ink-2">
        {module.long_m} × {module.short_m} m, {module.mass_kg} kg: two people lift one; work at
        height needs fall protection; tile and slate break underfoot. Years here are first estimates
        without shade. Rail: two under each row.
      </p>
    </div>
  );
}
