/** A sum as a person writes it, with where its numbers come from. */
import type { Schemas } from '@/api/client';

export function SumLines({ sum, result }: { sum: Schemas['SumView']; result: string }) {
  return (
    <>
      <div className="rounded-sm bg-bar px-2 py-1.5 font-mono text-xs leading-[1.6] break-words">
        <div>{sum.symbols}</div>
        <div>= {sum.numbers}</div>
        <div>= {result}</div>
      </div>
      <ul className="mt-1 text-xs text-ink-2">
        {sum.givens.map((given) => (
          <li key={given.symbol}>
            {given.label}: {given.origin || 'not given'}
          </li>
        ))}
      </ul>
    </>
  );
}
