/** What stands on the plane: obstructions, keep-out zones, modules that are there already. */
import type { RoofPlane, Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import type { PlaneSurvey } from '@/plan/scene';
import { Button } from '@/ui/Button';
import { Choice } from '@/ui/Choice';
import { InlineName } from '@/ui/InlineName';
import { PickList } from '@/ui/PickList';
import { TypedField } from '@/ui/TypedField';
import { echoOf } from '@/units/length';

interface OnItFaceProps {
  plane: RoofPlane;
  seen: PlaneSurvey;
  chosenId: string;
  onChoose: (id: string) => void;
}

export function OnItFace({ plane, seen, chosenId, onChoose }: OnItFaceProps) {
  const { job } = useJob();
  const chosen = plane.obstructions.find((o) => o.id === chosenId);
  const zone = plane.keep_outs.find((k) => k.id === chosenId);
  const rows = plane.existing.find((r) => r.existing_id === chosenId);
  const names = Object.fromEntries(job.brief.already.arrays.map((a) => [a.id, a.name]));
  const items = [
    ...plane.obstructions.map((o) => ({ id: o.id, name: o.name })),
    ...plane.keep_outs.map((k) => ({ id: k.id, name: `Zone: ${k.reason}` })),
    ...plane.existing.map((r) => ({
      id: r.existing_id,
      name: names[r.existing_id] ?? 'Old array',
    })),
  ];
  if (items.length === 0)
    return (
      <p className="text-sm text-ink-2">
        Nothing stands on it yet. Choose what does under “On the roof”, then click where it stands.
      </p>
    );
  return (
    <div className="flex h-full gap-3">
      <PickList items={items} chosenId={chosenId} onChoose={onChoose} />
      {chosen && (
        <Sizes
          key={chosen.id}
          plane={plane}
          seen={seen}
          obstruction={chosen}
          onRemoved={() => onChoose('')}
        />
      )}
      {zone && <Zone plane={plane} zone={zone} onRemoved={() => onChoose('')} />}
      {rows && <Rows plane={plane} rows={rows} onRemoved={() => onChoose('')} />}
      {!chosen && !zone && !rows && (
        <p className="text-sm text-ink-2">
          Choose one, here or on the drawing, to type its offsets and sizes or to drag it.
        </p>
      )}
    </div>
  );
}

const MODES = [
  { value: 'corner', label: 'from the left corner' },
  { value: 'edge', label: 'from the left edge' },
  { value: 'square', label: 'square off the edge' },
];

interface SizesProps {
  plane: RoofPlane;
  seen: PlaneSurvey;
  obstruction: Schemas['Obstruction'];
  onRemoved: () => void;
}

function Sizes({ plane, seen, obstruction, onRemoved }: SizesProps) {
  const { job, edit, act } = useJob();
  const view = seen.obstructions.find((o) => o.id === obstruction.id);
  const lean = Math.abs((seen.corners.at(-1)?.x_m ?? 0) - (seen.corners[0]?.x_m ?? 0)) > 0.02;
  const of = { plane_id: plane.id, obstruction_id: obstruction.id };
  const fields: ['width' | 'depth' | 'height' | 'clearance', string][] = [
    ['width', view?.round ? 'Diameter' : 'Along the eave'],
    ...(view?.round ? [] : [['depth', 'Up the slope'] as ['depth', string]]),
    ['height', 'Height'],
    ['clearance', 'Keep clear'],
  ];
  return (
    <div className="flex min-w-0 grow flex-col gap-[3px]">
      <InlineName
        label="Name of the obstruction"
        hint="Click to rename"
        value={obstruction.name}
        className="self-start text-sm font-semibold"
        onName={(typed) => act({ kind: 'set-obstruction-field', ...of, field: 'name', typed })}
      />
      {fields.map(([field, label]) => (
        <TypedField
          key={field}
          label={label}
          value={obstruction[field].typed}
          width={78}
          align="right"
          showLabel
          echo={(typed) => echoOf(typed, job.unit)}
          commit={(typed) => edit({ kind: 'set-obstruction-field', ...of, field, typed })}
        />
      ))}
      {lean && (
        <Choice
          label="Its left offset was taped"
          value={obstruction.offsets}
          items={MODES}
          onChange={(offsets) =>
            act({ kind: 'set-offset-mode', ...of, offsets: offsets as Schemas['OffsetMode'] })
          }
        />
      )}
      {view?.off_plane && (
        <p className="text-xs text-stop">It lies off the plane: check its offsets.</p>
      )}
      <span>
        <Button
          hint="Delete"
          onClick={() => {
            act({ kind: 'remove-obstruction', ...of });
            onRemoved();
          }}
        >
          Remove {obstruction.name}
        </Button>
      </span>
    </div>
  );
}

interface ZoneProps {
  plane: RoofPlane;
  zone: Schemas['KeepOut'];
  onRemoved: () => void;
}

function Zone({ plane, zone, onRemoved }: ZoneProps) {
  const { edit, act } = useJob();
  return (
    <div className="flex min-w-0 grow flex-col gap-1.5">
      <span className="text-sm">Why it stays free</span>
      <TypedField
        label="Why the zone stays free"
        value={zone.reason}
        width={190}
        align="left"
        tall
        commit={(reason) =>
          edit({ kind: 'set-keep-out-reason', plane_id: plane.id, keep_out_id: zone.id, reason })
        }
      />
      <span>
        <Button
          hint="Delete"
          onClick={() => {
            act({ kind: 'remove-keep-out', plane_id: plane.id, keep_out_id: zone.id });
            onRemoved();
          }}
        >
          Remove the zone
        </Button>
      </span>
    </div>
  );
}

interface RowsProps {
  plane: RoofPlane;
  rows: Schemas['ExistingRows'];
  onRemoved: () => void;
}

function Rows({ plane, rows, onRemoved }: RowsProps) {
  const { job, edit, act } = useJob();
  const of = { plane_id: plane.id, existing_id: rows.existing_id };
  const field = (name: Schemas['ExistingRowsField'], label: string, value: string) => (
    <TypedField
      label={label}
      value={value}
      width={66}
      align="right"
      showLabel
      {...(name === 'columns' || name === 'rows'
        ? {}
        : { echo: (typed: string) => echoOf(typed, job.unit) })}
      commit={(typed) => edit({ kind: 'set-existing-rows', ...of, field: name, typed })}
    />
  );
  return (
    <div className="grid grow grid-cols-1 gap-[3px]">
      {field('columns', 'Columns', String(rows.columns))}
      {field('rows', 'Rows', String(rows.rows))}
      {field('width', 'Module width', rows.width.typed)}
      {field('height', 'Module height', rows.height.typed)}
      {field('left', 'From the left', rows.left.typed)}
      {field('bottom', 'Up from the eave', rows.bottom.typed)}
      <span>
        <Button
          onClick={() => {
            act({ kind: 'erase-existing', ...of });
            onRemoved();
          }}
        >
          Take it off the drawing
        </Button>
      </span>
    </div>
  );
}
