/** How far apart rows stand and what it costs; tilts changed with the seasons. */
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { calendarAddress, groundQuery, seasonsQuery } from '@/api/arrayQueries';
import type { Schemas } from '@/api/client';
import { SpacingChart } from '@/charts/SpacingChart';
import { useJob } from '@/plan/JobContext';
import { Button } from '@/ui/Button';
import { TabbedCard } from '@/ui/TabbedCard';
import { TypedField } from '@/ui/TypedField';
import { dayName, figure, signed } from '@/units/format';
import { formatLength } from '@/units/length';

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
          body: <Seasons planeId={props.planeId} />,
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

function Seasons({ planeId }: { planeId: string }) {
  const { at, job, report } = useJob();
  const { data, error } = useQuery({
    ...seasonsQuery(at, planeId),
    enabled: report.modules_strung > 0,
  });
  const [open, setOpen] = useState(false);
  if (report.modules_strung === 0)
    return <p className="text-sm text-ink-2">Lay and string modules first.</p>;
  const metres = (m: number) => formatLength(m, job.unit);
  return (
    <>
      {error && <p className="text-sm text-stop">{error.message}</p>}
      {!data && !error && (
        <p role="status" className="text-sm text-ink-2">
          Working out the tilts
        </p>
      )}
      {data && (
        <>
          <table className="w-full text-xs">
            <thead>
              <tr className="text-right text-ink-2">
                <th className="text-left font-normal">Positions</th>
                <th className="text-left font-normal">tilt from day, back legs, lift</th>
                <th className="font-normal">kWh</th>
                <th className="pl-2 font-normal">over fixed</th>
                <th />
              </tr>
            </thead>
            <tbody>
              {data.plans.map((plan) => (
                <tr key={plan.count} className="border-t border-rule align-top font-figure">
                  <th scope="row" className="py-0.5 pr-2 text-left font-medium">
                    {plan.count === 1 ? 'fixed' : plan.count}
                  </th>
                  <td>
                    {plan.stands.map((s) => (
                      <span key={s.from_day} className="block whitespace-nowrap">
                        {figure(s.tilt_deg)}°
                        {plan.count > 1 &&
                          ` from ${dayName(s.from_day)}, ${metres(s.back_leg_m)}, ${signed(s.lift_m, 2)} m`}
                      </span>
                    ))}
                  </td>
                  <td className="text-right">{figure(plan.energy_kwh)}</td>
                  <td className="text-right whitespace-nowrap">
                    {plan.count === 1 ? '' : signed(plan.over_best_kwh)}
                  </td>
                  <td className="pl-2 text-right">
                    {plan.count > 1 && (
                      <a
                        className="underline"
                        href={calendarAddress(at, planeId, plan.count)}
                        download
                      >
                        calendar
                      </a>
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          <p className="mt-1 text-xs">
            Front posts hinge at {metres(data.hinge_m)}, so that the steepest still clears the
            ground.{' '}
            <button
              type="button"
              aria-expanded={open}
              className="underline"
              onClick={() => setOpen(!open)}
            >
              the order of the work
            </button>
          </p>
          {open && (
            <ol className="list-decimal pl-4 text-xs">
              {data.order_of_work.map((sentence) => (
                <li key={sentence}>{sentence}</li>
              ))}
            </ol>
          )}
          {data.doubts.map((doubt) => (
            <p key={doubt} className="text-xs text-warn">
              {doubt}.
            </p>
          ))}
        </>
      )}
    </>
  );
}
