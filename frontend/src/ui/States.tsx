/** The three states of a place that has nothing to show: it is being worked out, it failed, it is empty. */
import type { ReactNode } from 'react';

interface StateProps {
  children: ReactNode;
}

/** What is being worked out or fetched. */
export const Waiting = ({ children }: StateProps) => (
  <p role="status" className="p-6 text-sm text-ink-2">
    {children}
  </p>
);

/** Why there is nothing, in words that end with the next move. */
export const Failed = ({ children }: StateProps) => (
  <p role="alert" className="p-6 text-sm text-stop">
    {children}
  </p>
);

/** What belongs here and what brings it. */
export const Empty = ({ children }: StateProps) => (
  <p className="p-6 text-sm text-ink-2">{children}</p>
);
