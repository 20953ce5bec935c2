/** How far apart rows stand and what it costs, and the tilts of the year beside it. */
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { groundQuery } from '@/api/arrayQueries';
import type { Schemas } from '@/api/client';
import { SpacingChart } from '@/charts/SpacingChart';
import { useJob } from '@/plan/JobContext';
import { Button } from '@/ui/Button';
import { TabbedCard } from '@/ui/TabbedCard';
import { TypedField } from '@/ui/TypedField';
import { figure } from '@/units/format';
import { formatLength } from '@/units/length';
import { SeasonsFace } from './SeasonsFace';

const percent = (frac: number) => `${figure(frac * 100, 1)} %`;

export function GroundCards(props: { planeId: string; report: Schemas['GroundReport'] }) {
  const [face, setFace] = useState('rows');
  return (
    <TabbedCard
      label="Rows and seasons"
      value={face}
      onValueChange={setFace}
      className="w-[500px] shrink-0"
      faces={[
        { id: 'rows', title: 'Rows apart', body: <Spacing {...props} /> },
        {
          id: 'seasons',
          title: 'Tilt with the seasons',
          body: <SeasonsFace planeId={props.planeId} />,
        },
      ]}
    />
  );
}

function Spacing({ planeId, report }: { planeId: string; report: Schemas['GroundReport'] }) {
  const { at, job, option, act } = useJob();
  const [asked, setAsked] = useState('');
  const { data } = useQuery({ ...groundQuery(at, planeId, asked), enabled: asked !== '' });
  const gap = asked ? data?.asked_gap_m : null;
  const metres = (m: number) => formatLength(m, job.unit);
  return (
    <>
      {report.curve.length > 1 && (
        <SpacingChart
          dots={report.curve.map((p) => ({ gapM: p.gap_m, lossFrac: p.loss_frac }))}
          hereM={report.gap_m}
          solsticeM={report.solstice_gap_m}
          name={metres}
          widthPx={466}
          heightPx={92}
        />
      )}
      <p className="text-xs">
        {metres(report.gap_m)} level between rows; {report.spacing_sum}.
        {report.loss_frac !== null &&
          ` Long rows take ${percent(report.loss_frac)} of the year’s light from each other`}
        {report.cast_frac !== null &&
          `; by the sky over each module, trees, houses and hidden sky with it, ${percent(report.cast_frac)}`}
        .
      </p>
      <span className="mt-1 flex items-center gap-2 text-sm">
        Or as a loss of
        <TypedField
          label="Light rows may take"
          value={asked}
          placeholder="1 %"
          width={52}
          commit={async (typed) => setAsked(typed)}
        />
        {gap != null && (
          <Button
            onClick={() =>
              void act({
                kind: 'set-array-field',
                option_id: option.id,
                plane_id: planeId,
                field: 'gap_between_rows',
                typed: `${(Math.ceil(gap * 100) / 100).toFixed(2)} m`,
              })
            }
          >
            Space {metres(gap)}
          </Button>
        )}
      </span>
    </>
  );
}
