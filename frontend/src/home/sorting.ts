/** Which jobs are listed, in which order, under which headings. */
import type { JobCard, JobEntry } from './queries';
import { heading } from './when';

export type Order = 'newest' | 'name' | 'largest';

export interface Group {
  title: string;
  jobs: JobEntry[];
}

const words = (text: string) => text.toLowerCase().split(/\s+/).filter(Boolean);

/** Whether every word typed stands in the job's name or place. */
export const matches = (typed: string, job: JobEntry, card: JobCard | undefined) => {
  const told = `${job.name} ${card?.place ?? ''}`.toLowerCase();
  return words(typed).every((word) => told.includes(word));
};

/** The jobs in order; the newest ones come under the time they were touched. */
export function grouped(
  jobs: JobEntry[],
  order: Order,
  cardOf: (job: JobEntry) => JobCard | undefined,
  now: Date,
): Group[] {
  if (order === 'name')
    return [{ title: '', jobs: jobs.toSorted((a, b) => a.name.localeCompare(b.name)) }];
  if (order === 'largest') {
    const size = (job: JobEntry) => cardOf(job)?.p_dc_w ?? -1;
    return [{ title: '', jobs: jobs.toSorted((a, b) => size(b) - size(a)) }];
  }
  const groups: Group[] = [];
  for (const job of jobs.toSorted((a, b) => b.saved_at.localeCompare(a.saved_at))) {
    const title = heading(job.saved_at, now);
    const last = groups.at(-1);
    if (last?.title === title) last.jobs.push(job);
    else groups.push({ title, jobs: [job] });
  }
  return groups;
}
