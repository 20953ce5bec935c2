/** The tables of a ground array: how they stand, how far apart their rows are, their posts. */
import { useState } from 'react';
import { ProblemError, type Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { Button } from '@/ui/Button';
import { TypedField } from '@/ui/TypedField';
import { areaText } from '@/units/area';
import { dayName, figure } from '@/units/format';
import { echoOf, formatLength } from '@/units/length';

interface GroundFaceProps {
  planeId: string;
  array: Schemas['PlaneArray'];
  layout: Schemas['GroundLayout'] | null;
}

export function GroundFace({ planeId, array, layout }: GroundFaceProps) {
  const { job, option, report, edit, act } = useJob();
  const { table } = array;
  // Other tables lay every module anew: that is asked before it is done.
  const [asked, setAsked] = useState<{ typed: string; told: string } | null>(null);
  const trench = report.planes.find((p) => p.plane_id === planeId)?.trench;
  const of = { option_id: option.id, plane_id: planeId };
  const field = (
    label: string,
    value: string,
    length: boolean,
    save: (typed: string) => Promise<unknown>,
  ) => (
    <TypedField
      label={label}
      value={value}
      width={52}
      align="right"
      showLabel
      {...(length ? { echo: (typed: string) => echoOf(typed, job.unit) } : {})}
      commit={save}
    />
  );
  const asArray = (name: Schemas['ArrayField'], label: string, value: string, length: boolean) =>
    field(label, value, length, (typed) =>
      edit({ kind: 'set-array-field', ...of, field: name, typed }),
    );
  const asTable = (name: Schemas['TableField'], label: string, value: string, length: boolean) =>
    field(label, value, length, (typed) =>
      edit({ kind: 'set-table-field', ...of, field: name, typed, lay_anew: false }),
    );
  const saveRows = (typed: string) =>
    edit({ kind: 'set-table-field', ...of, field: 'rows', typed, lay_anew: false }).catch(
      (error: unknown) => {
        if (!(error instanceof ProblemError) || error.code !== 'input.answer-wanted') throw error;
        setAsked({ typed, told: error.message });
      },
    );
  const metres = (m: number) => formatLength(m, job.unit);
  return (
    <div className="flex flex-col gap-1">
      <div className="grid grid-cols-2 gap-x-3 gap-y-[3px] whitespace-nowrap">
        {asArray(
          'leg_tilt',
          'Tilt',
          `${figure(array.leg_tilt_deg, 1).replace(/\.0$/, '')}°`,
          false,
        )}
        {field('Rows a table', asked?.typed ?? String(table?.rows ?? 1), false, saveRows)}
        {asTable('clearance', 'Front clearance', table?.clearance.typed ?? '', true)}
        {asArray('gap_between_rows', 'Row spacing', array.gap_between_rows.typed, true)}
        {asTable('along', 'Posts along', table?.along.typed ?? '', true)}
        {asTable('apart', 'front to back', table?.apart.typed ?? '', true)}
      </div>
      {asked && (
        <div className="flex flex-wrap items-center gap-1.5 text-xs" role="alert">
          <p>{asked.told}</p>
          <Button
            onClick={() => {
              setAsked(null);
              void act({
                kind: 'set-table-field',
                ...of,
                field: 'rows',
                typed: asked.typed,
                lay_anew: true,
              });
            }}
          >
            Lay anew
          </Button>
          <Button onClick={() => setAsked(null)}>Leave them</Button>
        </div>
      )}
      <span className="flex flex-wrap gap-1.5">
        <Button onClick={() => void act({ kind: 'space-rows', ...of })}>
          For the shortest day
        </Button>
        {layout && layout.bays > 0 && (
          <Button onClick={() => void act({ kind: 'fill-bays', option_id: option.id })}>
            Fill {layout.bays} bays
          </Button>
        )}
      </span>
      {layout && layout.posts.length > 0 && (
        <p className="text-xs">
          {layout.modules} modules{layout.bays > 0 && `, ${layout.bays} bays for later`} on{' '}
          {layout.tables.length} tables; {layout.posts.length} posts of{' '}
          {metres(layout.shortest_post_m)} to {metres(layout.longest_post_m)} over the ground; land{' '}
          {areaText(layout.land_m2, null, job.unit)}
          {layout.lot_m !== null && `; lot line ${metres(layout.lot_m)} away`}
          {trench && `; trench ${metres(trench.length_m)}`}.
        </p>
      )}
      {layout && layout.stands.length > 0 && (
        <p className="text-xs">
          Drawn at the steepest of {layout.stands.length} tilts:{' '}
          {layout.stands
            .map((s) => `${figure(s.tilt_deg)}° from ${dayName(s.from_day)}`)
            .join(', ')}
          . A tilt that is typed stays all year.
        </p>
      )}
      <p className="text-xs text-ink-2">
        Posts are lengths over the ground: their depth, soil and wind are an engineer’s. Call before
        digging.
      </p>
    </div>
  );
}
