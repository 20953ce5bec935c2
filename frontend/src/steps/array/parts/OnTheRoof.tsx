/** What is said over the drawing: no layout, the first one to lay, what the ground forbids. */
import type { Schemas } from '@/api/client';
import { Button } from '@/ui/Button';
import type { Alternative } from '../queries';
import { titleOf } from './AlternativeCard';

interface OnTheRoofProps {
  problem: string;
  /** The layout to begin with, while nothing is laid and nothing is in hand. */
  first: Alternative | undefined;
  stale: boolean;
  onUse: (layout: Alternative) => void;
  ground: Schemas['GroundLayout'] | null;
}

export function OnTheRoof({ problem, first, stale, onUse, ground }: OnTheRoofProps) {
  return (
    <>
      {problem ? (
        <p
          role="alert"
          className="absolute top-1/2 left-1/2 z-20 max-w-[420px] -translate-x-1/2 -translate-y-1/2 rounded-md border border-stop bg-sheet px-3 py-2 text-sm text-stop"
        >
          {problem}
        </p>
      ) : (
        first && (
          <p className="absolute top-1/2 left-1/2 z-20 flex -translate-x-1/2 -translate-y-1/2 items-center gap-3 rounded-md border border-rule bg-sheet px-3 py-2 text-sm">
            Nothing is laid on this plane yet.
            <Button weight="main" disabled={stale} onClick={() => onUse(first)}>
              Lay {first.count}, {titleOf(first).toLowerCase()}
            </Button>
          </p>
        )
      )}
      {ground && ground.told.length > 0 && (
        <ul
          aria-label="About this ground"
          className="absolute bottom-3 left-4 z-10 flex max-w-[250px] flex-col gap-1 rounded-md border border-warn bg-sheet px-3 py-2 text-sm text-warn"
        >
          {ground.told.map((sentence) => (
            <li key={sentence}>{sentence}.</li>
          ))}
        </ul>
      )}
    </>
  );
}
