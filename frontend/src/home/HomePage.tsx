/** All jobs: what to start with, and every job there is as a card; find, sort, archive. */
import { useQueries, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { jobsQuery } from '@/api/queries';
import mark from '@/app/mark.svg';
import { Button } from '@/ui/Button';
import { Choice } from '@/ui/Choice';
import { Failed, Waiting } from '@/ui/States';
import { JobCard } from './JobCard';
import { cardQuery, type JobEntry } from './queries';
import { StartPanel } from './StartPanel';
import { grouped, matches, type Order } from './sorting';
import { useYearsInTurn } from './useYearsInTurn';

const ORDERS: { value: Order; label: string }[] = [
  { value: 'newest', label: 'Last touched' },
  { value: 'name', label: 'By name' },
  { value: 'largest', label: 'Largest first' },
];

export function HomePage() {
  const jobs = useQuery(jobsQuery);
  return (
    <div className="mx-auto flex min-h-full max-w-[1240px] flex-col px-5">
      <header className="flex flex-wrap items-center gap-3 py-4">
        <img src={mark} alt="" width="38" height="29" />
        <h1 className="text-lg font-semibold">Ridge Tally</h1>
        <span className="text-sm text-ink-2">from tape readings to a checked design</span>
        <span className="grow" />
        <Link to="/shelf" className="text-sm underline">
          Shelf of equipment
        </Link>
      </header>
      <main className="grow">
        <StartPanel />
        {jobs.isPending && <Waiting>Reading the list</Waiting>}
        {jobs.isError && <Failed error={jobs.error} />}
        {jobs.data && <Jobs all={jobs.data} />}
      </main>
      <footer className="py-4 text-xs text-ink-2">
        Ridge Tally assists; local code, the authority having jurisdiction, the utility and licensed
        people decide.
      </footer>
    </div>
  );
}

function Jobs({ all }: { all: JobEntry[] }) {
  const [typed, setTyped] = useState('');
  const [order, setOrder] = useState<Order>('newest');
  const [archive, setArchive] = useState(false);
  const [seen, setSeen] = useState<ReadonlySet<string>>(new Set());
  // Who looks for a place, or sorts by size, wants every card.
  const every = typed.trim() !== '' || order === 'largest';
  const cards = useQueries({
    queries: all.map((job) => ({ ...cardQuery(job), enabled: every || seen.has(job.id) })),
  });
  const byId = new Map(all.map((job, i) => [job.id, cards[i]?.data]));
  const cardOf = (job: JobEntry) => byId.get(job.id);
  const away = all.filter((job) => job.archived).length;
  const listed = all.filter((job) => job.archived === archive && matches(typed, job, cardOf(job)));
  useYearsInTurn(
    listed.filter((job) => seen.has(job.id)).map((job) => ({ job, card: cardOf(job) })),
  );
  const onSeen = (id: string) => setSeen((before) => new Set([...before, id]));
  return (
    <>
      <div className="mt-5 flex flex-wrap items-center gap-2 border-b border-rule pb-2">
        <h2 className="text-base font-semibold">{archive ? 'Archive' : 'Jobs'}</h2>
        <span className="text-sm text-ink-2">
          {listed.length === 1 ? '1 job' : `${listed.length} jobs`}
        </span>
        <span className="grow" />
        <input
          type="search"
          aria-label="Find a job"
          placeholder="Find by name or place"
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          className="h-[27px] w-[200px] rounded-md border border-field bg-sheet px-2.5 text-sm"
        />
        <Choice
          label="Order of the jobs"
          value={order}
          items={ORDERS}
          onChange={(value) => setOrder(value as Order)}
        />
        {(away > 0 || archive) && (
          <Button
            weight={archive ? 'pressed' : 'plain'}
            aria-pressed={archive}
            onClick={() => setArchive(!archive)}
          >
            Archive ({away})
          </Button>
        )}
      </div>
      {listed.length === 0 && (
        <p className="py-4 text-sm text-ink-2">
          {typed.trim()
            ? `No job has “${typed.trim()}” in its name or place.`
            : archive
              ? 'The archive is empty.'
              : 'No jobs yet. Name the first one above, begin with a sample, or open a job file.'}
        </p>
      )}
      {grouped(listed, order, cardOf, new Date()).map(({ title, jobs }) => (
        <section key={title} aria-label={title || 'Jobs'}>
          {title && <h3 className="pt-3 pb-1.5 text-xs font-medium text-ink-2">{title}</h3>}
          <ul
            className={`grid grid-cols-[repeat(auto-fill,minmax(min(100%,290px),1fr))] gap-3 ${title ? '' : 'pt-3'}`}
          >
            {jobs.map((job) => (
              <JobCard key={job.id} job={job} card={cardOf(job)} onSeen={onSeen} />
            ))}
          </ul>
        </section>
      ))}
    </>
  );
}
