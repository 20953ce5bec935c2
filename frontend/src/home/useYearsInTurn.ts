/** Years of the jobs in sight that nobody has worked out yet: one at a time, so that nothing waits. */
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { yearQuery } from '@/api/queries';
import { cardKey, type JobCard, type JobEntry } from './queries';

export interface Seen {
  job: JobEntry;
  card: JobCard | undefined;
}

const lacksYear = (card: JobCard | undefined) =>
  card !== undefined && card.modules > 0 && card.makes_ac && !card.year_is_newest;

export function useYearsInTurn(seen: Seen[]) {
  const client = useQueryClient();
  const [asked, setAsked] = useState<ReadonlySet<string>>(new Set());
  const next = seen.find(({ job, card }) => lacksYear(card) && !asked.has(job.id));
  const { job, card } = next ?? {};
  const { data, isError, isPlaceholderData } = useQuery({
    ...yearQuery({
      jobId: job?.id ?? '',
      revision: job?.revision ?? 1,
      optionId: card?.option_id ?? 'a',
    }),
    enabled: job !== undefined,
    retry: false,
  });
  useEffect(() => {
    if (!job || !card || isPlaceholderData || !(data || isError)) return;
    if (data)
      client.setQueryData<JobCard>(cardKey(job), {
        ...card,
        energy_kwh: data.energy_kwh,
        year_is_newest: true,
      });
    setAsked((before) => new Set([...before, job.id]));
  }, [client, job, card, data, isError, isPlaceholderData]);
}
