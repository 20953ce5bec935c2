/** What a fill is to look like: gaps, shortest run, a mirrored look. */
import type { Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { Toggle } from '@/ui/Toggle';
import { TypedField } from '@/ui/TypedField';
import { echoOf } from '@/units/length';

interface FillFaceProps {
  planeId: string;
  array: Schemas['PlaneArray'] | undefined;
  squeeze: boolean;
  onSqueeze: (on: boolean) => void;
}

/** As the server starts an array. */
const USUAL_GAP = '20 mm';

export function FillFace({ planeId, array, squeeze, onSqueeze }: FillFaceProps) {
  const { job, option, edit, act } = useJob();
  const field = (name: Schemas['ArrayField'], label: string, value: string, length: boolean) => (
    <TypedField
      label={label}
      value={value}
      width={72}
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
    <div className="flex flex-col gap-[3px]">
      {field('gap_in_row', 'Gap in a row', array?.gap_in_row.typed ?? USUAL_GAP, true)}
      {field(
        'gap_between_rows',
        'Gap between rows',
        array?.gap_between_rows.typed ?? USUAL_GAP,
        true,
      )}
      {field('shortest_run', 'Shortest run, modules', String(array?.shortest_run ?? 1), false)}
      <Toggle
        on={array?.symmetric ?? false}
        onChange={(on) =>
          act({ kind: 'set-symmetric', option_id: option.id, plane_id: planeId, on })
        }
      >
        Rows mirror about the middle of the eave
      </Toggle>
      <Toggle on={squeeze} onChange={onSqueeze}>
        Also squeeze in without rows
      </Toggle>
    </div>
  );
}
