/** The three states of a place that has nothing to show: it is being worked out, it failed, it is empty. */
import type { ReactNode } from 'react';

interface StateProps {
  children: ReactNode;
}

interface WaitingProps extends StateProps {
  /** What will stand here: nobody waits for something unnamed. */
  shows?: string;
}

const LINES = ['w-4/5', 'w-full', 'w-3/5'];

/** What is being worked out or fetched, and what will stand here then. */
export const Waiting = ({ children, shows }: WaitingProps) => (
  <div role="status" data-waiting="" className="p-6 text-sm text-ink-2">
    <p className="font-medium text-ink">{children}</p>
    {shows && <p className="mt-1 max-w-[520px]">{shows}</p>}
    <div aria-hidden="true" className="mt-3 flex max-w-[520px] animate-pulse flex-col gap-2">
      {LINES.map((wide) => (
        <span key={wide} className={`h-3 rounded-sm bg-bar ${wide}`} />
      ))}
    </div>
  </div>
);

interface FailedProps {
  error: Error;
  /** Inside a card, where there is room around it already. */
  tight?: boolean;
}

/** Why there is nothing, in words that end with the next move; what is only missing is no fault. */
export const Failed = ({ error, tight = false }: FailedProps) => {
  const missing = 'code' in error && error.code === 'input.missing-datum';
  return (
    <p
      role={missing ? 'status' : 'alert'}
      className={`${tight ? 'py-1' : 'p-6'} text-sm ${missing ? 'text-ink-2' : 'text-stop'}`}
    >
      {error.message}
    </p>
  );
};

/** What belongs here and what brings it. */
export const Empty = ({ children }: StateProps) => (
  <p className="p-6 text-sm text-ink-2">{children}</p>
);
