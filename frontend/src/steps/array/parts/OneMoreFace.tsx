/** Why not one more: in words, and what would let it in. */
import type { Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { Button } from '@/ui/Button';

interface OneMoreFaceProps {
  answer: Schemas['OneMore'] | undefined;
  problem: string;
  asked: boolean;
  stale: boolean;
  onAsk: () => void;
}

export function OneMoreFace({ answer, problem, asked, stale, onAsk }: OneMoreFaceProps) {
  const { act } = useJob();
  if (!asked)
    return (
      <>
        <p className="mb-2 text-sm">
          What keeps the next module off, and the least that would help.
        </p>
        <Button hint="W" weight="main" onClick={onAsk}>
          Why not one more?
        </Button>
      </>
    );
  if (problem) return <p className="text-sm text-stop">{problem}</p>;
  if (!answer) return <p className="text-sm text-ink-2">Looking for what would help</p>;
  const follow = async (edits: Schemas['WayIn']['edits']) => {
    for (const edit of edits) await act(edit);
  };
  return (
    <div aria-busy={stale} className={stale ? 'opacity-60' : ''}>
      <p className="mb-1 text-sm">{answer.told}</p>
      <ul className="flex flex-col gap-1">
        {answer.ways_in.map((way) => (
          <li key={way.told} className="flex items-start justify-between gap-2 text-sm">
            <span>
              <b className="font-semibold">{way.modules}</b>: {way.told}
            </span>
            {way.edits.length > 0 && <Button onClick={() => void follow(way.edits)}>Do it</Button>}
          </li>
        ))}
      </ul>
      {answer.ways_in.length === 0 && (
        <p className="text-sm text-ink-2">No strip, clearance or gap given up would let one in.</p>
      )}
    </div>
  );
}
