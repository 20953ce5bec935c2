/** The firm's prices as another job has them, taken over in one go: a price book by use. */
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { jobQuery, jobsQuery } from '@/api/queries';
import { useJob } from '@/plan/JobContext';
import { Choice } from '@/ui/Choice';

const NONE = 'none';

export function PricesOfJob({ currency }: { currency: string }) {
  const { at, act } = useJob();
  const client = useQueryClient();
  const [told, setTold] = useState('');
  const others = (useQuery(jobsQuery).data ?? []).filter(({ id }) => id !== at.jobId);
  if (others.length === 0) return null;
  const take = async (jobId: string) => {
    const { money, name } = (await client.fetchQuery(jobQuery(jobId))).job;
    if (money.prices.length === 0) return setTold(`${name} has no prices of its own.`);
    if (money.currency && currency && money.currency !== currency)
      return setTold(
        `The prices of ${name} are in ${money.currency}, this job’s are in ${currency}: nothing is converted and nothing was taken over.`,
      );
    const prices = money.prices.map((p) => ({ name: p.name, typed: (p.cents / 100).toFixed(4) }));
    await act({ kind: 'set-prices', prices });
    setTold(`${prices.length} prices of ${name} taken over; undo takes them back.`);
  };
  return (
    <>
      <Choice
        label="Take prices of another job"
        value={NONE}
        items={[
          { value: NONE, label: 'Take prices of another job …' },
          ...others.map(({ id, name }) => ({ value: id, label: name })),
        ]}
        onChange={(jobId) => jobId !== NONE && void take(jobId)}
      />
      {told && (
        <p role="status" className="text-sm text-ink-2">
          {told}
        </p>
      )}
    </>
  );
}
