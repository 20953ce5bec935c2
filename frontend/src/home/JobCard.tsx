/** A job in the list: its plan, its size and year, how far each step has come, when it was touched. */
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { type RefObject, useEffect, useRef } from 'react';
import { Link } from 'react-router';
import { jobFileAddress, jobsQuery } from '@/api/queries';
import { SHAPES, STEPS } from '@/app/steps';
import { Mark } from '@/ui/Mark';
import { Menu } from '@/ui/Menu';
import { useNotify } from '@/ui/Notices';
import { figure, yearlyKwh } from '@/units/format';
import { CardPlan } from './CardPlan';
import * as queries from './queries';
import { touched } from './when';

interface JobCardProps {
  job: queries.JobEntry;
  card: queries.JobCard | undefined;
  /** It has come into sight. */
  onSeen: (id: string) => void;
}

export function JobCard({ job, card, onSeen }: JobCardProps) {
  const place = useRef<HTMLLIElement>(null);
  useSeen(place, () => onSeen(job.id));
  return (
    <li
      ref={place}
      className={`flex min-h-[148px] flex-col rounded-lg border border-rule bg-sheet p-3 hover:border-field ${job.archived ? 'opacity-75' : ''}`}
    >
      <div className="flex gap-3">
        {card ? (
          <CardPlan plan={card.plan} />
        ) : (
          <span className="h-[88px] w-[112px] shrink-0 rounded-sm bg-paper" />
        )}
        <div className="min-w-0 grow">
          <h3 className="text-base leading-tight font-semibold break-words">
            <Link to={`/jobs/${job.id}`} className="hover:underline">
              {job.name}
            </Link>
          </h3>
          {card && <Told card={card} />}
        </div>
      </div>
      <div className="mt-auto flex items-center gap-2 pt-2">
        {card && <Steps card={card} />}
        <span className="grow" />
        <time
          dateTime={job.saved_at}
          title={new Date(job.saved_at).toLocaleString('en-GB')}
          className="text-xs whitespace-nowrap text-ink-2"
        >
          {touched(job.saved_at, new Date())}
        </time>
        <Deeds job={job} />
      </div>
    </li>
  );
}

function Told({ card }: { card: queries.JobCard }) {
  const more = card.options > 1 ? `, first of ${card.options} options` : '';
  return (
    <>
      <p className="text-xs text-ink-2">{card.place || 'place not given'}</p>
      {card.modules === 0 ? (
        <p className="mt-1 text-sm text-ink-2">no modules yet</p>
      ) : (
        <>
          <p className="mt-1 font-figure text-sm">
            {card.modules} modules, {figure(card.p_dc_w / 1000, 2)} kW DC{more}
          </p>
          <p className="font-figure text-sm">
            <Year card={card} />
          </p>
        </>
      )}
      {card.problem && <p className="text-xs text-stop">{card.problem}</p>}
    </>
  );
}

function Year({ card }: { card: queries.JobCard }) {
  if (!card.makes_ac) return <span className="text-ink-2">DC alone, no year</span>;
  if (card.energy_kwh === null) return <span className="text-ink-2">year not worked out</span>;
  return card.year_is_newest ? (
    <b className="font-semibold">{yearlyKwh(card.energy_kwh)} a year</b>
  ) : (
    <span className="text-ink-2">{yearlyKwh(card.energy_kwh)} before the last edits</span>
  );
}

function Steps({ card }: { card: queries.JobCard }) {
  const told = STEPS.filter((step) => step.unbuilt === undefined);
  return (
    <ul aria-label="Steps" className="flex gap-[2px]">
      {told.map(({ id, title }) => {
        const shape = SHAPES[card.steps[id] ?? 'not-begun'];
        return (
          <li key={id} title={title} className="flex">
            <span className="sr-only">{title}: </span>
            <Mark shape={shape} />
          </li>
        );
      })}
    </ul>
  );
}

function Deeds({ job }: { job: queries.JobEntry }) {
  const client = useQueryClient();
  const notify = useNotify();
  const done = {
    onSuccess: () => void client.invalidateQueries({ queryKey: jobsQuery.queryKey }),
    onError: (error: Error) => notify({ text: error.message, tone: 'stop' }),
  };
  const told = (text: string, run: () => void) =>
    notify({ text, tone: 'plain', action: { label: 'Undo', run } });
  const copy = useMutation({ mutationFn: () => queries.duplicate(job.id), ...done });
  const restore = useMutation({ mutationFn: () => queries.restore(job.id), ...done });
  const put = useMutation({
    mutationFn: (archived: boolean) => queries.archive(job.id, archived),
    ...done,
    onSuccess: (_, archived) => {
      done.onSuccess();
      if (archived) told(`“${job.name}” is in the archive.`, () => put.mutate(false));
    },
  });
  const remove = useMutation({
    mutationFn: () => queries.remove(job.id),
    ...done,
    onSuccess: () => {
      done.onSuccess();
      told(`“${job.name}” is deleted.`, () => restore.mutate());
    },
  });
  return (
    <Menu
      label={`What to do with ${job.name}`}
      items={[
        { label: 'Duplicate', run: () => copy.mutate() },
        {
          label: 'Download the job file',
          run: () => window.open(jobFileAddress(job.id), '_blank'),
        },
        {
          label: job.archived ? 'Take out of the archive' : 'Put into the archive',
          run: () => put.mutate(!job.archived),
        },
        { label: 'Delete', run: () => remove.mutate() },
      ]}
    >
      <span aria-hidden="true">⋯</span>
      <span className="sr-only">What to do with {job.name}</span>
    </Menu>
  );
}

/** Calls once what it refers to has come near the window. */
function useSeen(place: RefObject<Element | null>, onSeen: () => void) {
  const call = useRef(onSeen);
  call.current = onSeen;
  useEffect(() => {
    const element = place.current;
    if (!element) return;
    const watch = new IntersectionObserver(
      (entries) => {
        if (!entries.some((entry) => entry.isIntersecting)) return;
        watch.disconnect();
        call.current();
      },
      { rootMargin: '300px' },
    );
    watch.observe(element);
    return () => watch.disconnect();
  }, [place]);
}
