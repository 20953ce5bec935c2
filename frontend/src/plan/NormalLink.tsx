/** From a day of sun or of power to what meters should read at a moment of it. */
import { Link } from 'react-router';
import { useJob } from './JobContext';

export function NormalLink() {
  const { at } = useJob();
  return (
    <Link
      to={`/jobs/${at.jobId}/${at.optionId}/proving`}
      className="inline-flex min-h-6 items-center text-sm whitespace-nowrap underline"
    >
      Read something? Is it normal?
    </Link>
  );
}
