/** How far apart rows stand and what it costs, and the tilts of the year beside it. */
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Schemas } from '@/api/client';
import { SpacingChart } from '@/charts/SpacingChart';
import { useJob } from '@/plan/JobContext';
import { Button } from '@/ui/Button';
import { Fitted } from '@/ui/Fitted';
import { TabbedCard } from '@/ui/TabbedCard';
import { TypedField } from '@/ui/TypedField';
import { figure } from '@/units/format';
import { formatAtLeast, formatLength } from '@/units/length';
import { rowsLightQuery } from '../queries';
import { SeasonsFace } from './SeasonsFace';

const percent = (frac: number) => `${figure(frac * 100, 1)} %`;

export function GroundCards(props: { planeId: string; layout: Schemas['GroundLayout'] }) {
  const [face, setFace] = useState('rows');
  return (
    <TabbedCard
      label="Rows and seasons"
      value={face}
      onValueChange={setFace}
      className="w-[500px] shrink-0"
      faces={[
        { id: 'rows', title: 'Row spacing', body: <Spacing {...props} /> },
        {
          id: 'seasons',
          title: 'Seasonal tilt',
          body: <SeasonsFace planeId={props.planeId} />,
        },
      ]}
    />
  );
}

function Spacing({ planeId, layout }: { planeId: string; layout: Schemas['GroundLayout'] }) {
  const { at, job, option, act } = useJob();
  const [asked, setAsked] = useState('');
  const { data: light, isPlaceholderData } = useQuery(rowsLightQuery(at, planeId));
  const { data: forLoss } = useQuery({
    ...rowsLightQuery(at, planeId, asked),
    enabled: asked !== '',
  });
  const gap = asked ? forLoss?.asked_gap_m : null;
  const metres = (m: number) => formatLength(m, job.unit);
  return (
    <>
      <div aria-busy={isPlaceholderData} className={isPlaceholderData ? 'opacity-50' : ''}>
        {light && light.curve.length > 1 && (
          <Fitted mostPx={466}>
            {(widthPx) => (
              <SpacingChart
                dots={light.curve.map((p) => ({ gapM: p.gap_m, lossFrac: p.loss_frac }))}
                hereM={layout.gap_m}
                solsticeM={layout.solstice_gap_m}
                name={metres}
                widthPx={widthPx}
                heightPx={92}
              />
            )}
          </Fitted>
        )}
      </div>
      <p className="text-xs">
        {metres(layout.gap_m)} level between rows; {layout.spacing_sum}.{' '}
        {light && !isPlaceholderData ? (
          <>
            {light.loss_frac !== null &&
              `Long rows take ${percent(light.loss_frac)} of the year’s light from each other`}
            {light.cast_frac !== null &&
              `; by the sky over each module, trees, houses and hidden sky with it, ${percent(light.cast_frac)}`}
            .
          </>
        ) : (
          'What they take is being worked out.'
        )}
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
                typed: formatAtLeast(gap, job.unit),
              })
            }
          >
            Space {formatAtLeast(gap, job.unit)}
          </Button>
        )}
      </span>
    </>
  );
}
