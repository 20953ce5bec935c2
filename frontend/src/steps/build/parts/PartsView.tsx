/** What to bring: rails, mounts and clamps with their spares, and what two people carry. */
import type { Schemas } from '@/api/client';
import { Empty } from '@/ui/States';
import { figure, money } from '@/units/format';

export function PartsView({ racking }: { racking: Schemas['RackingView'] }) {
  if (racking.parts.length === 0)
    return <Empty>Parts are counted once a plane has its mounting system: see Rails.</Empty>;
  return (
    <section aria-label="Parts" className="min-h-0 grow overflow-y-auto px-4 py-3">
      <table className="w-full max-w-[860px] border-collapse text-sm">
        <thead>
          <tr className="border-b border-ink text-left text-ink-2">
            <th scope="col" className="font-normal">
              Part
            </th>
            <th scope="col" className="text-right font-normal">
              Needed
            </th>
            <th scope="col" className="text-right font-normal">
              Spares
            </th>
            <th scope="col" className="text-right font-normal">
              Each
            </th>
            <th scope="col" className="text-right font-normal">
              All
            </th>
          </tr>
        </thead>
        <tbody>
          {racking.parts.map((part) => (
            <tr key={part.name} className="border-b border-rule">
              <th scope="row" className="py-1 text-left font-medium">
                {part.name}
              </th>
              <td className="text-right font-figure">{figure(part.count)}</td>
              <td className="text-right font-figure">{part.spares || ''}</td>
              <td className="text-right font-figure">
                {part.price_cents === null ? '?' : money(part.price_cents)}
              </td>
              <td className="text-right font-figure">
                {part.cents === null ? '?' : money(part.cents)}
              </td>
            </tr>
          ))}
        </tbody>
        {racking.cents !== null && (
          <tfoot>
            <tr>
              <th scope="row" colSpan={4} className="py-1 text-left">
                Racking, parts alone
              </th>
              <td className="text-right font-figure font-semibold">{money(racking.cents)}</td>
            </tr>
          </tfoot>
        )}
      </table>
      <p className="mt-2 text-xs text-ink-2">
        Spares: 5 % rounded up, at least one; none of rails.
        {racking.sample_prices && ' Sample prices are invented.'}
        {racking.unknown_prices.length > 0 && ` No price: ${racking.unknown_prices.join(', ')}.`}
      </p>
      {racking.lifting.map((told) => (
        <p key={told} className="mt-1 text-sm">
          {told}.
        </p>
      ))}
    </section>
  );
}
