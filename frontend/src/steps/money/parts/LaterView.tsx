/** The option bought today, a year later or in stages: what each way is worth, and what it rests on. */
import type { Schemas } from '@/api/client';
import { laterQuery } from '@/api/money';
import { useJob } from '@/plan/JobContext';
import { useStudy } from '@/plan/useStudy';
import { Board } from '@/ui/Board';
import { Card } from '@/ui/Card';
import { Failed, Waiting } from '@/ui/States';
import { useScrollStop } from '@/ui/useScrollStop';
import { cash, figure, money } from '@/units/format';
import { MoneyField } from './MoneyField';
import { Unsound } from './Unsound';

type View = Schemas['MoneyView'];
type Plan = Schemas['LaterPlan'];

export function LaterView({ found: priced }: { found: View }) {
  const { at } = useJob();
  const { currency } = priced;
  const scrollStop = useScrollStop();
  const { found, behind, running, error } = useStudy(laterQuery(at));
  const [drawn] = found?.plans ?? [];
  return (
    <>
      {error ? (
        <Failed error={error} />
      ) : !found || !drawn ? (
        <Waiting shows="This option bought today, a year later, and in stages where the roof has room.">
          Working out this option first
        </Waiting>
      ) : (
        <section
          ref={scrollStop}
          aria-label="Now or later"
          aria-busy={behind}
          className={`breaks relative min-h-0 grow overflow-auto px-4 py-2 ${behind ? 'opacity-50' : ''}`}
        >
          <p role="status" className="mb-1 text-sm">
            {running && found.trying
              ? `Now: ${found.trying}`
              : 'Each way is a whole run of its own, to the same last year.'}
          </p>
          <table className="w-full max-w-[980px] border-collapse text-sm">
            <thead>
              <tr className="border-b border-ink text-ink-2">
                <th scope="col" className="text-left font-normal">
                  Way to buy it
                </th>
                <th scope="col" className="pl-3 text-right font-normal">
                  Worth today
                </th>
                <th scope="col" className="pl-3 text-right font-normal">
                  Against as drawn
                </th>
                <th scope="col" className="pl-3 text-right font-normal">
                  Paid back
                </th>
              </tr>
            </thead>
            <tbody>
              {found.plans.map((plan) => (
                <Row key={plan.title} plan={plan} drawn={drawn} currency={currency} />
              ))}
            </tbody>
          </table>
          {found.plans.length === 2 && !running && (
            <p className="mt-2 text-sm">
              The roof holds no more modules than are drawn: there is nothing to build in stages.
            </p>
          )}
          <p className="mt-2 text-xs text-ink-2">{found.told.join('. ')}.</p>
        </section>
      )}
      <Board heightPx={190}>
        <Card title="Later" aside="dashed: usual" className="w-[300px] shrink-0" scrolls>
          <div className="flex flex-col gap-1">
            <MoneyField found={priced} field="price_change_frac" />
            <MoneyField found={priced} field="stage_year" />
            <MoneyField found={priced} field="contract" />
            <MoneyField found={priced} field="in_service" />
          </div>
        </Card>
      </Board>
    </>
  );
}

function Row({ plan, drawn, currency }: { plan: Plan; drawn: Plan; currency: string }) {
  const less = plan.npv_cents - drawn.npv_cents;
  return (
    <tr className="border-b border-rule text-right font-figure align-top">
      <th scope="row" className="py-1 text-left font-sans font-medium">
        {plan.title}
        {plan.paid.map((paid) => (
          <span key={paid.year} className="block text-xs font-normal text-ink-2">
            {paid.year === 0 ? 'today' : `year ${paid.year}`}: {paid.what} for{' '}
            {money(paid.price_cents, currency)}
            {paid.incentives_cents !== 0 &&
              `, ${money(paid.incentives_cents, currency)} of incentives`}
          </span>
        ))}
        <Unsound breaks={plan.breaks} unpriced={plan.unpriced} />
      </th>
      <td className="py-1 pl-3 font-semibold whitespace-nowrap">
        {cash(plan.npv_cents, currency)}
      </td>
      <td className="py-1 pl-3 whitespace-nowrap">
        {plan === drawn ? '' : `${less > 0 ? '+' : ''}${cash(less, currency)}`}
      </td>
      <td className="py-1 pl-3 whitespace-nowrap">
        {plan.years === null ? 'never' : `${figure(plan.years, 1)} years`}
      </td>
    </tr>
  );
}
