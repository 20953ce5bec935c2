/** A card of the board below the work surface. */
import type { ComponentProps, ReactNode } from 'react';
import { useScrollStop } from './useScrollStop';

interface CardProps {
  title: string;
  /** In the place of the title where that can be typed over. */
  heading?: ReactNode;
  aside?: ReactNode;
  children: ReactNode;
  className?: string;
  /** Its own height is bounded: what does not fit is scrolled to. */
  scrolls?: boolean;
  /** What happens when something is dropped on it. */
  dropped?: Pick<ComponentProps<'section'>, 'onDragOver' | 'onDragLeave' | 'onDrop'>;
}

export function Card({
  title,
  heading,
  aside,
  children,
  className = '',
  scrolls = false,
  dropped,
}: CardProps) {
  const scrollStop = useScrollStop();
  return (
    <section
      ref={scrolls ? scrollStop : undefined}
      aria-label={title}
      {...dropped}
      className={`rounded-lg border border-rule bg-sheet px-3 py-2.5 ${scrolls ? 'overflow-y-auto' : ''} ${className}`}
    >
      <div className="mb-1 flex items-baseline justify-between gap-2">
        <h2 className="text-sm font-semibold">{heading ?? title}</h2>
        {aside && <span className="text-xs text-ink-2">{aside}</span>}
      </div>
      {children}
    </section>
  );
}

/** The strip of tools above the work surface. */
export function Toolbar({ children }: { children: ReactNode }) {
  return (
    <div
      role="toolbar"
      aria-label="Tools"
      className="flex min-h-10 shrink-0 flex-wrap items-center gap-x-2 gap-y-1 border-b border-rule px-3.5 py-1"
    >
      {children}
    </div>
  );
}
