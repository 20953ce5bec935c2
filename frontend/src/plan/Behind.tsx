/** What is still of the design before: dimmed, and told which change it is catching up with. */
import type { ReactNode } from 'react';
import { useJob } from './JobContext';

interface BehindProps {
  behind: boolean;
  children: ReactNode;
}

export function Behind({ behind, children }: BehindProps) {
  return (
    <div aria-busy={behind} className="relative flex min-h-0 grow flex-col">
      {behind && (
        <div className="absolute top-1 right-3 z-20 max-w-[300px] rounded-md border border-rule bg-sheet px-2">
          <CatchingUp />
        </div>
      )}
      <div className={`flex min-h-0 grow flex-col ${behind ? 'opacity-50' : ''}`}>{children}</div>
    </div>
  );
}

/** The change that figures are catching up with, and that they are on their way. */
export function CatchingUp({ what = '' }: { what?: string }) {
  const { state } = useJob();
  const change = state.undo ? ` with “${state.undo}”` : '';
  return (
    <div className="py-1 text-xs text-ink-2" role="status">
      {what ? `${what} is catching up` : 'Catching up'}
      {change}
      <div className="mt-1 h-[3px] overflow-hidden rounded-full bg-bar">
        <div className="h-full w-1/3 animate-pulse bg-patina" />
      </div>
    </div>
  );
}
