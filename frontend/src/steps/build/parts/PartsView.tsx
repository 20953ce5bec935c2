/** What to bring: rails, mounts and clamps with their spares, and what two people carry. */
import type { Schemas } from '@/api/client';
import { saveTable } from '@/charts/TableBehind';
import { useJob } from '@/plan/JobContext';
import { useStudy } from '@/plan/useStudy';
import { Button } from '@/ui/Button';
import { Empty } from '@/ui/States';
import { TypedField } from '@/ui/TypedField';
import { useScrollStop } from '@/ui/useScrollStop';
import { figure, money } from '@/units/format';
import { WireParts } from '../circuits/WireParts';
import { circuitsQuery } from '../queries';

export function PartsView({ racking }: { racking: Schemas['RackingView'] }) {
  const { at } = useJob();
  const { found: circuits } = useStudy(circuitsQuery(at));
  const scrollStop = useScrollStop();
  if (racking.parts.length === 0 && !circuits?.parts.length)
    return <Empty>Parts are counted once a plane has its mounting system: see Rails.</Empty>;
  return (
    <section
      ref={scrollStop}
      aria-label="Parts"
      className="breaks min-h-0 grow overflow-y-auto px-4 py-3"
    >
      {racking.parts.length > 0 && <RackingParts racking={racking} />}
      {circuits && <WireParts found={circuits} />}
    </section>
  );
}

function RackingParts({ racking }: { racking: Schemas['RackingView'] }) {
  const { job } = useJob();
  return (
    <>
      <table className="w-full max-w-[860px] border-collapse text-sm">
        <thead>
          <tr className="border-b border-ink text-left text-ink-2">
            <th scope="col" className="font-normal">
              Part
            </th>
            {['Needed', 'Spares', 'On the shelf', 'To buy', 'Each', 'All'].map((title) => (
              <th key={title} scope="col" className="pl-3 text-right font-normal">
                {title}
              </th>
            ))}
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
              <td className="text-right font-figure">{part.on_shelf || ''}</td>
              <td className="text-right font-figure font-semibold">
                {figure(part.buy)}
                {part.boxes > 0 && (
                  <span className="block text-xs font-normal whitespace-nowrap text-ink-2">
                    {part.boxes === 1 ? '1 box' : `${part.boxes} boxes`}
                  </span>
                )}
              </td>
              <td className="text-right font-figure whitespace-nowrap">
                {part.price_cents === null ? '?' : money(part.price_cents)}
              </td>
              <td className="text-right font-figure whitespace-nowrap">
                {part.cents === null ? '?' : money(part.cents)}
              </td>
            </tr>
          ))}
        </tbody>
        {racking.cents !== null && (
          <tfoot>
            <tr>
              <th scope="row" colSpan={6} className="py-1 text-left">
                Racking, parts alone
              </th>
              <td className="text-right font-figure font-semibold whitespace-nowrap">
                {money(racking.cents)}
              </td>
            </tr>
          </tfoot>
        )}
      </table>
      <p className="mt-2">
        <Button onClick={() => saveTable(tableOf(job.name, racking.parts))}>Parts (CSV)</Button>
      </p>
      <p className="mt-2 text-xs text-ink-2">
        Spares: 5 % rounded up, at least one; none of rails. Boxes are bought whole. What the firm’s
        shelf holds (Brief, Shelf: kind rail or part, item by its name here) is not bought again.
        {racking.cuts.length === 0 && ' Rails and splices follow when the sticks are cut.'}
        {racking.sample_prices && ' Sample prices are invented.'}
        {racking.unknown_prices.length > 0 && ` No price: ${racking.unknown_prices.join(', ')}.`}
      </p>
      {racking.hours.length > 0 && <Hours hours={racking.hours} />}
      {racking.lifting.map((told) => (
        <p key={told} className="mt-1 text-sm">
          {told}.
        </p>
      ))}
    </>
  );
}

const tableOf = (job: string, parts: Schemas['PartRow'][]) => ({
  title: `${job} racking parts`,
  columns: ['Part', 'Needed', 'Spares', 'On the shelf', 'To buy', 'Boxes', 'Each', 'All'],
  rows: parts.map((part) => [
    part.name,
    part.count,
    part.spares,
    part.on_shelf,
    part.buy,
    part.boxes || '',
    part.price_cents === null ? '' : (part.price_cents / 100).toFixed(2),
    part.cents === null ? '' : (part.cents / 100).toFixed(2),
  ]),
});

/** A crew of two, task by task: rates are typed over by the firm's own. */
function Hours({ hours }: { hours: Schemas['HoursRow'][] }) {
  const { option, edit } = useJob();
  return (
    <>
      <h2 className="mt-4 text-sm font-semibold">Crew hours, an estimate</h2>
      <table className="mt-1 w-full max-w-[620px] border-collapse text-sm">
        <thead>
          <tr className="border-b border-ink text-left text-ink-2">
            <th scope="col" className="font-normal">
              Work
            </th>
            <th scope="col" className="pl-3 text-right font-normal">
              How much
            </th>
            <th scope="col" className="pl-3 text-right font-normal">
              An hour
            </th>
            <th scope="col" className="pl-3 text-right font-normal">
              Hours
            </th>
          </tr>
        </thead>
        <tbody>
          {hours.map((row) => (
            <tr key={row.what} className="border-b border-rule">
              <th scope="row" className="py-1 text-left font-medium">
                {row.what}
              </th>
              <td className="text-right font-figure">{figure(row.amount)}</td>
              <td className="flex justify-end py-0.5">
                <TypedField
                  label={`${row.what}, an hour`}
                  value={figure(row.per_hour, row.per_hour % 1 ? 1 : 0)}
                  tone={row.typed ? 'plain' : 'derived'}
                  width={64}
                  align="right"
                  commit={(typed) =>
                    edit({ kind: 'set-crew-rate', option_id: option.id, task: row.task, typed })
                  }
                />
              </td>
              <td className="text-right font-figure">{figure(row.hours, 1)}</td>
            </tr>
          ))}
        </tbody>
        <tfoot>
          <tr>
            <th scope="row" colSpan={3} className="py-1 text-left">
              Two people, together
            </th>
            <td className="text-right font-figure font-semibold whitespace-nowrap">
              {figure(
                hours.reduce((sum, row) => sum + row.hours, 0),
                1,
              )}
            </td>
          </tr>
        </tfoot>
      </table>
      <p className="mt-1 text-xs text-ink-2">
        Dashed rates are common practice, no source; typed ones are yours. Travel, set-up and
        electrical work are not in it.
      </p>
    </>
  );
}
