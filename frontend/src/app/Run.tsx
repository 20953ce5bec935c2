/** The run: ten steps, each with a state that has shape as well as colour; none is locked. */
import { Link } from 'react-router';
import { useJob } from '@/plan/JobContext';
import { Mark } from '@/ui/Mark';
import { SHAPES, STEPS } from './steps';

export function Run({ current }: { current: string }) {
  const { at, report, brief } = useJob();
  // The brief is of the job, the other steps are of the option.
  const stateOf = (id: string) => (id === 'brief' ? brief.step : report.steps[id]) ?? 'not-begun';
  return (
    <nav
      aria-label="Steps"
      className="flex w-[118px] shrink-0 flex-col gap-px border-r border-rule px-2 pt-2.5 max-[1100px]:w-[56px] max-md:w-full max-md:flex-row max-md:justify-between max-md:border-r-0 max-md:border-b max-md:px-1 max-md:py-0.5"
    >
      {STEPS.map((step) => {
        const here = step.id === current;
        return (
          <Link
            key={step.id}
            to={`/jobs/${at.jobId}/${at.optionId}/${step.id}`}
            aria-current={here ? 'step' : undefined}
            className={`flex h-[34px] items-center justify-between gap-1.5 rounded-md px-2.5 text-sm font-medium ${here ? 'bg-ink text-sheet' : 'hover:bg-bar'}`}
          >
            <span className={`max-[1100px]:sr-only ${here ? 'max-md:not-sr-only' : ''}`}>
              {step.title}
            </span>
            <Mark shape={SHAPES[stateOf(step.id)]} pale={here} />
          </Link>
        );
      })}
    </nav>
  );
}
