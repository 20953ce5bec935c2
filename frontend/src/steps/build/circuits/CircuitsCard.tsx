/** Each circuit in a row: conductor, breaker, drop, how it stands; another size is one pick away. */
import type { Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { Button } from '@/ui/Button';
import { Card } from '@/ui/Card';
import { Choice } from '@/ui/Choice';
import { Mark, type Shape } from '@/ui/Mark';
import { figure } from '@/units/format';

type Circuit = Schemas['CircuitView'];

const SHAPE: Record<Schemas['Verdict'], Shape> = {
  kept: 'circle',
  broken: 'square',
  'not-checked': 'triangle',
};
const TOLD: Record<Schemas['Verdict'], string> = {
  kept: 'kept',
  broken: 'broken',
  'not-checked': 'not checked',
};
const SMALLEST = 'smallest';

export function CircuitsCard({ found }: { found: Schemas['CircuitsView'] }) {
  return (
    <Card title="Circuits" className="shrink-0" scrolls>
      {found.circuits.length === 0 ? (
        <p className="text-sm">Circuits follow once modules are in strings: see Strings.</p>
      ) : (
        <table className="border-collapse text-sm">
          <thead>
            <tr className="border-b border-ink text-left text-xs text-ink-2">
              {['Circuit', 'Conductor', 'To earth', 'Most', 'Breaker', 'Length', 'Drop', ''].map(
                (title, i) => (
                  <th
                    key={title || 'stands'}
                    scope="col"
                    className={`font-normal ${i ? 'pl-3' : ''}`}
                  >
                    {title || <span className="sr-only">How it stands</span>}
                  </th>
                ),
              )}
            </tr>
          </thead>
          <tbody>
            {found.circuits.map((c) => (
              <CircuitRow key={c.id} circuit={c} breakers={found.breakers} />
            ))}
          </tbody>
        </table>
      )}
      <p className="mt-1.5 max-w-[520px] text-xs text-ink-2">{found.lost_told}</p>
    </Card>
  );
}

function CircuitRow({ circuit: c, breakers }: { circuit: Circuit; breakers: number[] }) {
  const { job, option, act } = useJob();
  const unit = job.site.code_pack === 'us' ? 'AWG' : 'mm²';
  const set = (field: Schemas['CircuitField'], typed: string) =>
    void act({ kind: 'set-circuit', option_id: option.id, circuit: c.id, field, typed });
  return (
    <tr className="border-b border-rule align-top">
      <th scope="row" className="max-w-[150px] py-1 text-left font-medium">
        {c.name}
      </th>
      <td className="pl-3">
        {c.size || c.chosen ? (
          <Choice
            label={`Conductor of ${c.name}`}
            className="w-[112px]"
            value={c.chosen ? c.size : SMALLEST}
            items={[
              {
                value: SMALLEST,
                label: `${c.proposed || '?'} ${unit}, the smallest that passes`,
                short: `${c.proposed || '?'} ${unit}`,
              },
              ...c.sizes.map((size) => ({ value: size, label: `${size} ${unit}` })),
            ]}
            onChange={(size) => set('size', size === SMALLEST ? '' : size)}
          />
        ) : (
          <span className="block max-w-[150px] text-xs text-ink-2">{c.asked || 'none passes'}</span>
        )}
        {c.larger && !c.chosen && (
          <span className="mt-1 block text-xs whitespace-nowrap">
            <Button
              onClick={() => set('size', c.larger?.size ?? '')}
            >{`Take ${c.larger.told}`}</Button>
            {c.larger.saved_kwh !== null && (
              <span className="ml-1.5 text-ink-2">
                saves {figure(c.larger.saved_kwh, c.larger.saved_kwh < 10 ? 1 : 0)} kWh a year
              </span>
            )}
          </span>
        )}
      </td>
      <td className="pl-3 whitespace-nowrap">{c.earth_told}</td>
      <td className="pl-3 text-right font-figure whitespace-nowrap">{figure(c.most_a, 1)} A</td>
      <td className="pl-3">
        {!c.dc && (
          <Choice
            label={`Breaker of ${c.name}`}
            className="w-[84px]"
            value={c.breaker_chosen ? String(c.breaker_a) : SMALLEST}
            items={[
              {
                value: SMALLEST,
                label: c.breaker_chosen
                  ? 'next standard size'
                  : `${c.breaker_a ?? '?'} A, next standard size`,
                short: `${c.breaker_a ?? '?'} A`,
              },
              ...breakers.map((b) => ({ value: String(b), label: `${b} A` })),
            ]}
            onChange={(b) => set('breaker_a', b === SMALLEST ? '' : b)}
          />
        )}
      </td>
      <td className="pl-3 text-right font-figure whitespace-nowrap">{c.length_text}</td>
      <td className="pl-3 text-right font-figure whitespace-nowrap">
        {c.drop_percent === null ? '?' : `${figure(c.drop_percent, 2)} %`}
      </td>
      <td className="pl-3 whitespace-nowrap">
        <Mark shape={SHAPE[c.verdict]} />
        <span className="sr-only">{TOLD[c.verdict]}</span>
      </td>
    </tr>
  );
}
