/** The target beside every step. */
import { useTarget } from '@/api/useYear';
import { useJob } from '@/plan/JobContext';
import { Failed } from '@/ui/States';
import { TargetTold } from './TargetTold';

export function TargetRows() {
  const { at } = useJob();
  const { query, behind } = useTarget(at);
  if (query.isPending)
    return (
      <p role="status" className="py-1 text-sm text-ink-2">
        How many modules the need asks for, and how many there are, stand here in a moment.
      </p>
    );
  if (query.isError) return <Failed error={query.error} tight />;
  return (
    <div aria-busy={behind} className={behind ? 'opacity-50' : ''}>
      <TargetTold target={query.data} />
    </div>
  );
}
