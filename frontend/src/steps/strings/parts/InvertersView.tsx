/** Every inverter of the shelf with its best plan for this array, or why it has none. */
import { stopStudy } from '@/api/asking';
import type { Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { useStudy } from '@/plan/useStudy';
import { Button } from '@/ui/Button';
import { Mark } from '@/ui/Mark';
import { useSorted } from '@/ui/useSorted';
import { figure, lossShare } from '@/units/format';
import { inverterPlansQuery } from '../queries';
import { Study } from './Study';

type InverterPlan = Schemas['InverterPlan'];

const COLUMNS = [
  { id: 'loading', title: 'DC:AC', of: (i: InverterPlan) => i.loading },
  { id: 'energy', title: 'kWh', of: (i: InverterPlan) => i.energy_kwh },
  { id: 'clipped', title: 'Clipped', rising: true, of: (i: InverterPlan) => i.clipped_frac },
  { id: 'price', title: 'Price', rising: true, of: (i: InverterPlan) => i.price_cents },
] as const;

export function InvertersView() {
  const { at } = useJob();
  return (
    <Study
      study={useStudy(inverterPlansQuery(at))}
      waiting="Looking at the inverters of the shelf"
      coming="Each that can string this array, with its plan, its ratio and its year, the best first."
    >
      {(plans, running) => <Inverters plans={plans} running={running} />}
    </Study>
  );
}

function Inverters({ plans, running }: { plans: Schemas['InverterPlans']; running: boolean }) {
  const { at, option, act } = useJob();
  const { found } = plans;
  const { sorted, heads } = useSorted(found, COLUMNS);
  return (
    <section
      aria-label="Inverters for this array"
      className="relative min-h-0 grow overflow-y-auto p-4"
    >
      <Hanging />
      <div className="mb-2 flex items-center gap-2 text-sm">
        <b>
          Inverters with a legal plan: {found.filter((i) => i.legal).length} of {found.length}
        </b>
        {running && (
          <>
            <span role="status" className="text-ink-2">
              {found.length < plans.of
                ? `${found.length} of ${plans.of} looked at`
                : `${plans.years} of ${found.filter((i) => i.legal).length} years worked out`}
            </span>
            <Button onClick={() => void stopStudy(at, 'inverter-plans')}>Stop</Button>
          </>
        )}
      </div>
      <table className="w-full max-md:min-w-[600px] text-sm">
        <thead>
          <tr className="text-left text-xs text-ink-2">
            <th className="font-normal">Inverter</th>
            {heads}
            <th className="pl-4 font-normal">Best plan, or why there is none</th>
            <th className="w-[142px]">
              <span className="sr-only">Take it</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {sorted.map((i) => (
            <tr key={i.inverter_id} className="border-t border-rule">
              <th scope="row" className="py-1.5 text-left font-medium">
                {i.name}
              </th>
              <td className="w-[58px] text-right font-figure">{figure(i.loading, 2)}</td>
              <td className="w-[62px] text-right font-figure whitespace-nowrap">
                {i.energy_kwh === null ? (i.legal ? '…' : '') : figure(i.energy_kwh)}
              </td>
              <td className="w-[58px] text-right font-figure whitespace-nowrap">
                {i.clipped_frac === null ? '' : lossShare(i.clipped_frac)}
              </td>
              <td className="w-[58px] text-right font-figure whitespace-nowrap">
                {i.price_cents === null ? '?' : figure(i.price_cents / 100)}
              </td>
              <td className="py-1.5 pl-4">
                <span className="flex items-start gap-2">
                  <span className="mt-1 shrink-0">
                    <Mark
                      shape={
                        !i.legal || i.broken.some((b) => b.kind === 'stop')
                          ? 'square'
                          : i.broken.length > 0
                            ? 'triangle'
                            : 'circle'
                      }
                    />
                  </span>
                  <span>
                    {i.told}
                    {i.broken.map((b) => (
                      <b key={b.told} className="block text-xs text-stop">
                        {b.kind === 'stop' ? 'Stop' : 'Outside'}: {b.told}
                      </b>
                    ))}
                  </span>
                </span>
              </td>
              <td className="text-right">
                <span className="flex items-center justify-end gap-1.5 py-0.5">
                  {i.inverter_id === option.inverter_id && option.more_inverters.length === 0 ? (
                    <span className="text-xs text-ink-2">chosen</span>
                  ) : (
                    <Button
                      onClick={() =>
                        void act({
                          kind: 'choose-inverter',
                          option_id: option.id,
                          inverter_id: i.inverter_id,
                        })
                      }
                    >
                      Choose
                    </Button>
                  )}
                  <Button
                    aria-label={`Add ${i.name} beside what hangs there`}
                    onClick={() =>
                      void act({
                        kind: 'add-inverter',
                        option_id: option.id,
                        inverter_id: i.inverter_id,
                      })
                    }
                  >
                    Add
                  </Button>
                </span>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-2 text-xs text-ink-2">
        Each alone, in the place of all that hang there, its best plan threaded row by row, its year
        by the hour. Makers’ DC limits and the grid’s caps stand in the Tally once an inverter is
        chosen. Sample inverters are invented, their prices too.
      </p>
    </section>
  );
}

/** What hangs in this option: taken away one by one where there are several. */
function Hanging() {
  const { option, report, act } = useJob();
  if (report.inverters.length < 2) return null;
  return (
    <ol aria-label="Inverters of this option" className="mb-3 text-sm">
      {report.inverters.map((name, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: an inverter is named by its number
        <li key={i} className="flex items-center gap-2 py-0.5">
          <b>Inverter {i + 1}</b> {name}
          <Button
            aria-label={`Take inverter ${i + 1} away`}
            onClick={() =>
              void act({ kind: 'remove-inverter', option_id: option.id, unit_number: i + 1 })
            }
          >
            Take away
          </Button>
        </li>
      ))}
    </ol>
  );
}
