/** Tilts changed with the seasons: what they are worth, which are taken, and when they are changed. */
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { Button } from '@/ui/Button';
import { Failed } from '@/ui/States';
import { TypedField } from '@/ui/TypedField';
import { dayName, figure, signed } from '@/units/format';
import { formatLength } from '@/units/length';
import { calendarAddress, seasonsQuery } from '../queries';

type Plan = Schemas['SeasonalPlan'];

const alike = (a: Plan, b: Plan) =>
  a.positions.length === b.positions.length &&
  a.positions.every(
    (p, i) =>
      p.tilt_deg === b.positions[i]?.tilt_deg &&
      (a.positions.length === 1 || p.from_day === b.positions[i]?.from_day),
  );

export function SeasonsFace({ planeId }: { planeId: string }) {
  const { at, report } = useJob();
  const { data, error, isPlaceholderData } = useQuery({
    ...seasonsQuery(at, planeId),
    enabled: report.modules_strung > 0,
  });
  const [open, setOpen] = useState(false);
  if (report.modules_strung === 0)
    return <p className="text-sm text-ink-2">Lay and string modules first.</p>;
  if (error) return <Failed error={error} tight />;
  if (!data)
    return (
      <p role="status" className="text-sm text-ink-2">
        What two or four tilts a year give over one that stands still: worked out now.
      </p>
    );
  return (
    <div aria-busy={isPlaceholderData} className={isPlaceholderData ? 'opacity-50' : ''}>
      <table className="w-full text-xs">
        <thead>
          <tr className="text-right text-ink-2">
            <th className="text-left font-normal">Tilts</th>
            <th className="text-left font-normal">held from, back legs, lift for it</th>
            <th className="font-normal">kWh</th>
            <th className="pl-2 font-normal">over fixed</th>
            <td />
          </tr>
        </thead>
        <tbody>
          <NowRow
            planeId={planeId}
            now={data.now}
            best={data.plans.some((plan) => alike(plan, data.now))}
          />
          {data.plans
            .filter((plan) => !alike(plan, data.now))
            .map((plan) => (
              <PlanRow key={plan.positions.length} planeId={planeId} plan={plan} />
            ))}
        </tbody>
      </table>
      <p className="mt-1 text-xs">
        As it is, front posts hinge at <Metres m={data.now.hinge_m} />, so that the steepest still
        clears the ground
        {data.now.positions.length > 1 &&
          `; changed two weeks late each time, it gives ${figure(data.now.late_kwh)} kWh less`}
        .{' '}
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
      {data.caveats.map((caveat) => (
        <p key={caveat} className="text-xs text-warn">
          {caveat}.
        </p>
      ))}
    </div>
  );
}

function Metres({ m }: { m: number }) {
  const { job } = useJob();
  return <>{formatLength(m, job.unit)}</>;
}

/** Up or down from the tilt before. */
function Lift({ m }: { m: number }) {
  const { job } = useJob();
  return (
    <>
      {m < 0 ? '−' : '+'}
      {formatLength(Math.abs(m), job.unit)}
    </>
  );
}

/** What is: the days and tilts of the year typed over, and its calendar. */
function NowRow({ planeId, now, best }: { planeId: string; now: Plan; best: boolean }) {
  const { at, option, edit } = useJob();
  const changed = now.positions.length > 1;
  const field = (number: number, name: Schemas['SeasonField'], label: string, value: string) => (
    <TypedField
      label={label}
      value={value}
      width={name === 'tilt' ? 42 : 58}
      commit={(typed) =>
        edit({
          kind: 'set-season-field',
          option_id: option.id,
          plane_id: planeId,
          number,
          field: name,
          typed,
        })
      }
    />
  );
  return (
    <tr className="border-t border-rule bg-patina-wash align-top font-figure">
      <th scope="row" className="py-0.5 pr-2 text-left font-medium">
        as it is
        {best && <span className="block font-normal">best {now.positions.length}</span>}
      </th>
      <td>
        {now.stands.map((s, i) =>
          changed ? (
            <span key={s.from_day} className="flex items-center gap-1 whitespace-nowrap">
              {field(i + 1, 'tilt', `Tilt ${i + 1}`, `${figure(s.tilt_deg)}°`)}
              {field(i + 1, 'from_day', `From day ${i + 1}`, dayName(s.from_day))}
              <Metres m={s.back_leg_m} />, <Lift m={s.lift_m} />
            </span>
          ) : (
            <span key={s.from_day}>{figure(s.tilt_deg)}° all year</span>
          ),
        )}
      </td>
      <td className="text-right">{figure(now.energy_kwh)}</td>
      <td className="text-right whitespace-nowrap">{signed(now.over_best_kwh)}</td>
      <td className="pl-2 text-right">
        {changed && (
          <a className="underline" href={calendarAddress(at, planeId)} download>
            calendar
          </a>
        )}
      </td>
    </tr>
  );
}

/** The best days and tilts of so many, to be taken. */
function PlanRow({ planeId, plan }: { planeId: string; plan: Plan }) {
  const { option, act } = useJob();
  const count = plan.positions.length;
  return (
    <tr className="border-t border-rule align-top font-figure">
      <th scope="row" className="py-0.5 pr-2 text-left font-medium">
        {count === 1 ? 'best fixed' : `best ${count}`}
      </th>
      <td>
        {plan.stands.map((s) => (
          <span key={s.from_day} className="block whitespace-nowrap">
            {figure(s.tilt_deg)}°
            {count > 1 && (
              <>
                {' '}
                from {dayName(s.from_day)}, <Metres m={s.back_leg_m} />, <Lift m={s.lift_m} />
              </>
            )}
          </span>
        ))}
      </td>
      <td className="text-right">{figure(plan.energy_kwh)}</td>
      <td className="text-right whitespace-nowrap">{signed(plan.over_best_kwh)}</td>
      <td className="pl-2 text-right">
        <Button
          className="!h-[20px] !px-1.5 !text-xs"
          aria-label={count === 1 ? 'Take the best fixed tilt' : `Take ${count} tilts a year`}
          onClick={() =>
            void act({
              kind: 'set-seasons',
              option_id: option.id,
              plane_id: planeId,
              positions: plan.positions,
            })
          }
        >
          Take
        </Button>
      </td>
    </tr>
  );
}
