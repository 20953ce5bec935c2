/** The plan of work: a bar a step on its days, drawn along by hand; days held; as a calendar file. */
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { Board } from '@/ui/Board';
import { Button } from '@/ui/Button';
import { Card } from '@/ui/Card';
import { FileLink } from '@/ui/FileLink';
import { Failed, Waiting } from '@/ui/States';
import { Toggle } from '@/ui/Toggle';
import { TypedField } from '@/ui/TypedField';
import { useScrollStop } from '@/ui/useScrollStop';
import { useTried } from '@/ui/useTried';
import { workCalendar, workQuery } from '../queries';
import { daysBetween } from './days';
import { StepLine } from './StepLine';

export function WorkPlanView() {
  const { at, job, edit } = useJob();
  const scrollStop = useScrollStop();
  const { data: work, error, isPlaceholderData } = useQuery(workQuery(at));
  if (error) return <Failed error={error} />;
  if (!work) return <Waiting shows="Every step with its days.">Counting the days</Waiting>;
  const days = daysBetween(work.begins, work.ends) + 1;
  return (
    <div className="flex min-h-0 grow flex-col">
      <div className="for-the-hand flex flex-wrap items-center gap-2 px-3.5 py-1.5 text-sm">
        <TypedField
          label="Begins"
          value={job.paperwork.work?.begins ?? ''}
          placeholder={`today, ${work.begins}`}
          showLabel
          width={128}
          commit={(typed) => edit({ kind: 'set-work-field', field: 'begins', typed })}
        />
        <FileLink href={workCalendar(at)}>Calendar (ics)</FileLink>
        <span role="status" className="text-ink-2">
          Switched on {work.ends}, {days} days after it begins. Draw a bar to move its step.
        </span>
      </div>
      {work.amiss.map((told) => (
        <p
          key={told}
          role="alert"
          className="mx-3.5 mb-1 rounded-md border border-warn bg-warn-wash px-3 py-1.5 text-sm"
        >
          {told}
        </p>
      ))}
      <div
        ref={scrollStop}
        className={`min-h-40 grow basis-0 overflow-auto px-3.5 ${isPlaceholderData ? 'opacity-60' : ''}`}
      >
        <ol aria-label="Steps of the work" className="min-w-[700px]">
          <Months begins={work.begins} days={days} />
          {work.rows.map((row) => (
            <StepLine key={row.step} row={row} work={work} days={days} />
          ))}
        </ol>
      </div>
      <Board heightPx={150}>
        <CrewCard />
        <HoldsCard holds={work.holds} />
      </Board>
    </div>
  );
}

/** The first of each month over the bars. */
function Months({ begins, days }: { begins: string; days: number }) {
  const found: { day: string; at: number }[] = [];
  const start = new Date(`${begins}T00:00:00Z`);
  for (let n = 0; n < days; n++) {
    const day = new Date(start.getTime() + n * 86_400_000);
    if (n === 0 || day.getUTCDate() === 1)
      found.push({ day: day.toISOString().slice(0, 10), at: (n / days) * 100 });
  }
  return (
    <li aria-hidden="true" className="flex h-6 text-xs text-ink-2">
      <span className="w-[318px] shrink-0" />
      <span className="relative grow">
        {found
          .filter(({ at }, n) => n === 0 || at > 12)
          .map(({ day, at }) => (
            <span
              key={day}
              className="absolute border-l border-rule pl-1 whitespace-nowrap"
              style={{ left: `${at}%` }}
            >
              {day}
            </span>
          ))}
      </span>
    </li>
  );
}

function CrewCard() {
  const { job, edit, act } = useJob();
  const work = job.paperwork.work;
  return (
    <Card title="Crew" className="w-[250px] shrink-0" scrolls>
      <TypedField
        label="People"
        value={`${work?.people ?? 2}`}
        showLabel
        width={64}
        commit={(typed) => edit({ kind: 'set-work-field', field: 'people', typed })}
      />
      <TypedField
        label="Hours a day"
        value={`${work?.hours_a_day ?? 7}`}
        showLabel
        width={64}
        commit={(typed) => edit({ kind: 'set-work-field', field: 'hours_a_day', typed })}
      />
      <Toggle
        on={work?.saturdays ?? false}
        onChange={(on) =>
          void act({ kind: 'set-work-field', field: 'saturdays', typed: on ? 'yes' : '' })
        }
      >
        Works on Saturdays
      </Toggle>
    </Card>
  );
}

const FIELD = 'h-[27px] rounded-md border border-field bg-sheet px-2 text-sm';

function HoldsCard({ holds }: { holds: readonly Schemas['Hold'][] }) {
  const { edit, act } = useJob();
  const [from, setFrom] = useState('');
  const [to, setTo] = useState('');
  const [why, setWhy] = useState('');
  const { tried, problem } = useTried('It was not held.');
  const hold = async () => {
    const held = await tried(() => edit({ kind: 'hold-days', from_day: from, to_day: to, why }));
    if (!held) return;
    setFrom('');
    setTo('');
    setWhy('');
  };
  return (
    <Card
      title="Days held outdoors"
      aside="wind, rain, ice, a feast: nobody goes on the roof"
      className="min-w-[330px] grow"
      scrolls
    >
      <ul>
        {holds.map((one, n) => (
          <li key={`${one.from_day} ${one.why}`} className="flex items-center gap-2 text-sm">
            <span className="font-figure">
              {one.from_day}
              {one.to_day !== one.from_day && ` to ${one.to_day}`}
            </span>
            <span className="grow">{one.why}</span>
            <button
              type="button"
              aria-label={`No longer held: ${one.from_day}, ${one.why}`}
              className="min-h-6 min-w-6"
              onClick={() => void act({ kind: 'drop-hold', at: n })}
            >
              ×
            </button>
          </li>
        ))}
      </ul>
      <form
        className="mt-1 flex flex-wrap items-center gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          void hold();
        }}
      >
        <input
          aria-label="First day held"
          placeholder="2026-12-14"
          value={from}
          onChange={(event) => setFrom(event.target.value)}
          className={`${FIELD} w-[108px]`}
        />
        <input
          aria-label="Last day held"
          placeholder="same day"
          value={to}
          onChange={(event) => setTo(event.target.value)}
          className={`${FIELD} w-[108px]`}
        />
        <input
          aria-label="Why"
          placeholder="why"
          value={why}
          onChange={(event) => setWhy(event.target.value)}
          className={`${FIELD} min-w-[100px] grow`}
        />
        <Button type="submit">Hold</Button>
      </form>
      {problem && (
        <p role="alert" className="text-sm text-stop">
          {problem}
        </p>
      )}
    </Card>
  );
}
