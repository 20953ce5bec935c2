/** The one thing that is missing next: says it, and goes there or does it; it can be switched off. */
import { useNavigate, useSearchParams } from 'react-router';
import { useJob } from '@/plan/JobContext';
import { Button } from '@/ui/Button';
import { stepOf } from './steps';

const SWITCH = 'ridge-tally.next-line';

export const nextLineOn = () => localStorage.getItem(SWITCH) !== 'off';
export const setNextLine = (on: boolean) => localStorage.setItem(SWITCH, on ? 'on' : 'off');

interface NextLineProps {
  stepId: string;
  onSwitchOff: () => void;
}

export function NextLine({ stepId, onSwitchOff }: NextLineProps) {
  const { at, option, report, showPlane, act } = useJob();
  const navigate = useNavigate();
  const [asked] = useSearchParams();
  const move = report.next_move;
  if (!move) return null;
  const { step, view, plane_id: planeId, told, deed, edit } = move;
  const open = asked.get('view') ?? stepOf(stepId)?.views?.[0]?.id ?? view;
  const here = step === stepId && (view === '' || view === open);
  const go = () => {
    if (planeId) showPlane(planeId);
    const query = view ? `?view=${view}` : '';
    void navigate(`/jobs/${at.jobId}/${option.id}/${step}${query}`);
  };
  return (
    <section
      aria-label="Next"
      className="flex min-h-9 shrink-0 flex-wrap items-center gap-x-2 gap-y-1 border-b border-rule bg-copper-wash px-3.5 py-1 text-sm"
    >
      <b className="font-semibold">Next</b>
      <span className="min-w-0">{told}</span>
      {edit && <Button onClick={() => void act(edit)}>{deed}</Button>}
      {!here && <Button onClick={go}>Go to {stepOf(step)?.title ?? step}</Button>}
      <span className="grow" />
      <button
        type="button"
        onClick={onSwitchOff}
        className="min-h-6 px-1 text-xs text-ink-2 underline hover:text-ink"
      >
        Do not show
      </button>
    </section>
  );
}
