/** What the sums still want, with the way to where it is given. */
import { Link } from 'react-router';
import type { Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';

export function Asked({ found, running }: { found: Schemas['MoneyView']; running: boolean }) {
  const { at } = useJob();
  const told = found.asked || (running ? 'Working out the year these sums rest on.' : '');
  if (!told) return null;
  const view = found.tariff ? 'bills' : 'grid';
  const inBrief = found.asked.startsWith('The Brief has no');
  return (
    <p className="mb-1 text-sm" role="status">
      {told}{' '}
      {inBrief && (
        <Link
          className="inline-flex min-h-6 items-center underline"
          to={`/jobs/${at.jobId}/${at.optionId}/brief?view=${view}`}
        >
          {view === 'grid' ? 'To the grid rules' : 'To the bills'}
        </Link>
      )}
    </p>
  );
}
