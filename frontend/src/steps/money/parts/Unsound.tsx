/** What keeps a change or a way to buy from being sound: limits not kept, lines without a price. */
import type { Schemas } from '@/api/client';

interface UnsoundProps {
  breaks: readonly Schemas['Broken'][];
  unpriced: readonly string[];
}

export function Unsound({ breaks, unpriced }: UnsoundProps) {
  return (
    <>
      {breaks.map((b) => (
        <span key={b.told} className="block text-xs font-normal text-stop">
          {b.told}
        </span>
      ))}
      {unpriced.length > 0 && (
        <span className="block text-xs font-normal text-warn">
          No price yet: {unpriced.join(', ')}
        </span>
      )}
    </>
  );
}
