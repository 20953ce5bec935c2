/** The three states of a place that has nothing to show: it is being worked out, it failed, it is empty. */
import type { ReactNode } from 'react';

interface StateProps {
  children: ReactNode;
}

/** What is being worked out or fetched. */
export const Waiting = ({ children }: StateProps) => (
  <p role="status" data-waiting="" className="p-6 text-sm text-ink-2">
    {children}
  </p>
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
