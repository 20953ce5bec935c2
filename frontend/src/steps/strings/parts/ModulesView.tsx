/** Which module? Every one of the shelf on this roof and inverter. */
import type { Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { useStudy } from '@/plan/useStudy';
import { Button } from '@/ui/Button';
import { Mark } from '@/ui/Mark';
import { useSorted } from '@/ui/useSorted';
import { figure } from '@/units/format';
import { moduleChoiceQuery } from '../queries';
import { Study } from './Study';

type Row = Schemas['ModuleOnRoof'];

const COLUMNS = [
  { id: 'count', title: 'Fit', of: (m: Row) => m.count },
  { id: 'dc_kw', title: 'kW DC', of: (m: Row) => m.dc_kw },
  { id: 'plans', title: 'Legal plans', of: (m: Row) => m.plans },
  { id: 'mass_kg', title: 'kg each', of: (m: Row) => m.mass_kg },
  { id: 'whole_kg', title: 'kg in all', of: (m: Row) => m.whole_kg },
  { id: 'w_per_m2', title: 'W/m²', of: (m: Row) => m.w_per_m2 },
  { id: 'price', title: 'a W delivered', of: (m: Row) => m.cents_per_w },
] as const;

export function ModulesView() {
  const { at } = useJob();
  return (
    <Study
      study={useStudy(moduleChoiceQuery(at))}
      waiting="Laying the modules of the shelf"
      coming="What each module comes to on these planes: how many, how much, at what price."
    >
      {(choice, running) => <Modules choice={choice} running={running} />}
    </Study>
  );
}

function Modules({ choice, running }: { choice: Schemas['ModuleChoice']; running: boolean }) {
  const { option, act } = useJob();
  const { found } = choice;
  const { sorted, heads } = useSorted(found, COLUMNS, 'dc_kw');
  return (
    <section
      aria-label="Modules for this roof"
      className="relative min-h-0 grow overflow-y-auto p-4"
    >
      <p className="mb-1 text-sm">
        <b>
          Modules with a legal plan: {found.filter((m) => m.plans > 0).length} of {found.length}
        </b>
        {running && (
          <span role="status" className="ml-2 text-ink-2">
            {found.length} of {choice.of} laid
          </span>
        )}
      </p>
      <table className="w-full max-md:min-w-[600px] text-sm">
        <thead>
          <tr className="text-left align-bottom text-xs text-ink-2">
            <th className="font-normal">Module</th>
            {heads}
            <th className="w-[84px]">
              <span className="sr-only">Take it</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {sorted.map((m) => (
            <tr key={m.module_id} className="border-t border-rule align-top">
              <th scope="row" className="py-1.5 text-left font-medium">
                <span className="flex items-start gap-2">
                  <span className="mt-1">
                    <Mark shape={m.problem || m.plans === 0 ? 'square' : 'circle'} />
                  </span>
                  <span>
                    {m.name}
                    <span className="block text-xs font-normal text-ink-2">
                      {figure(m.long_m * 1000)} × {figure(m.short_m * 1000)} mm;{' '}
                      {m.problem || m.told}
                    </span>
                  </span>
                </span>
              </th>
              <Figure value={figure(m.count)} />
              <Figure value={figure(m.dc_kw, 2)} />
              <Figure value={figure(m.plans)} />
              <Figure value={figure(m.mass_kg, 1)} />
              <Figure value={figure(m.whole_kg)} />
              <Figure value={figure(m.w_per_m2)} />
              <Figure
                value={
                  m.cents_per_w === null
                    ? '?'
                    : `${figure(m.cents_per_w / 100, 3)}${m.with_freight ? '' : '*'}`
                }
              />
              <td className="py-1 text-right">
                {m.chosen ? (
                  <span className="text-xs text-ink-2">chosen</span>
                ) : (
                  <Button
                    aria-label={`Take ${m.name}`}
                    onClick={() =>
                      void act({
                        kind: 'choose-module',
                        option_id: option.id,
                        module_id: m.module_id,
                      })
                    }
                  >
                    Take it
                  </Button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-2 text-xs text-ink-2">
        Planes filled anew as they are filled now, on the inverter of this option. Prices with
        freight
        {found.some((m) => m.cents_per_w !== null && !m.with_freight) && ' (* freight not known)'}
        {found.some((m) => m.sample_price) && '; those of samples are invented'}. Sample modules are
        invented.
      </p>
    </section>
  );
}

const Figure = ({ value }: { value: string }) => (
  <td className="w-[70px] py-1.5 text-right font-figure whitespace-nowrap">{value}</td>
);
