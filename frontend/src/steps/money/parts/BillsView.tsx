/** The tariff, and the two bills of every month: without an array and with it. */
import type { Schemas } from '@/api/client';
import { BillBars } from '@/charts/BillBars';
import { useJob } from '@/plan/JobContext';
import { Board } from '@/ui/Board';
import { Card } from '@/ui/Card';
import { Fitted } from '@/ui/Fitted';
import { useScrollStop } from '@/ui/useScrollStop';
import { cash, figure, money } from '@/units/format';
import { Asked } from './Asked';
import { LoadsCard } from './LoadsCard';
import { TariffCard } from './TariffCard';

type View = Schemas['MoneyView'];

export function BillsView({ found, running }: { found: View; running: boolean }) {
  const { brief } = useJob();
  const scrollStop = useScrollStop();
  const { months, currency } = found;
  return (
    <>
      <section
        ref={scrollStop}
        aria-label="Bills of a year"
        className="breaks min-h-0 grow overflow-y-auto px-4 py-2"
      >
        {months.length === 0 ? (
          <Asked found={found} running={running} />
        ) : (
          <>
            <Fitted mostPx={900}>
              {(widthPx) => (
                <BillBars
                  label="Bills by month, without an array and with it"
                  months={months.map((m) => ({
                    month: m.month,
                    beforeCents: m.before_cents,
                    afterCents: m.after_cents,
                  }))}
                  currency={currency}
                  widthPx={widthPx}
                  heightPx={200}
                />
              )}
            </Fitted>
            <Months months={months} currency={currency} />
          </>
        )}
      </section>
      <Board heightPx={250}>
        {found.tariff ? (
          <TariffCard tariff={found.tariff} small={brief.small_money} />
        ) : (
          <Card title="Tariff" className="w-[300px] shrink-0">
            <p className="text-sm">No grid rules yet: choose a sample set in the Brief, Grid.</p>
          </Card>
        )}
        <TypedBills found={found} />
        <LoadsCard found={found} />
      </Board>
    </>
  );
}

function Months({ months, currency }: { months: View['months']; currency: string }) {
  const sum = (pick: (m: View['months'][number]) => number) =>
    months.reduce((all, m) => all + pick(m), 0);
  const banked = months.some((m) => m.banked_kwh > 0.5);
  return (
    <table className="mt-1 w-full max-w-[900px] border-collapse text-sm">
      <thead>
        <tr className="border-b border-ink text-ink-2">
          <th scope="col" className="text-left font-normal">
            Month
          </th>
          {[
            'Bought kWh',
            'Sent kWh',
            ...(banked ? ['Kept in credit kWh'] : []),
            'Paid for export',
            'Bill without',
            'Bill with',
          ].map((title) => (
            <th key={title} scope="col" className="pl-3 text-right font-normal">
              {title}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {months.map((m) => (
          <tr key={m.month} className="border-b border-rule text-right font-figure">
            <th scope="row" className="text-left font-sans font-medium">
              {m.month}
            </th>
            <td>{figure(m.bought_kwh)}</td>
            <td>{figure(m.sent_kwh)}</td>
            {banked && <td>{figure(m.banked_kwh)}</td>}
            <td>{cash(m.paid_cents)}</td>
            <td>{cash(m.before_cents, currency)}</td>
            <td>{cash(m.after_cents, currency)}</td>
          </tr>
        ))}
      </tbody>
      <tfoot>
        <tr className="text-right font-figure font-semibold">
          <th scope="row" className="text-left font-sans">
            Year
          </th>
          <td>{figure(sum((m) => m.bought_kwh))}</td>
          <td>{figure(sum((m) => m.sent_kwh))}</td>
          {banked && <td />}
          <td>{cash(sum((m) => m.paid_cents))}</td>
          <td>
            {cash(
              sum((m) => m.before_cents),
              currency,
            )}
          </td>
          <td>
            {cash(
              sum((m) => m.after_cents),
              currency,
            )}
          </td>
        </tr>
      </tfoot>
    </table>
  );
}

function TypedBills({ found }: { found: View }) {
  if (found.typed_bills.length === 0) return null;
  const off = found.typed_bills.filter((b) => b.told).length;
  return (
    <Card
      title="Bills of the Brief by this tariff"
      aside={off === 0 ? 'all to the cent' : `${off} differ`}
      className="w-[300px] shrink-0"
      scrolls
    >
      <ul className="text-sm">
        {found.typed_bills.map((bill) => (
          <li key={bill.bill_id} className="border-b border-rule py-0.5">
            {figure(bill.energy_kwh)} kWh over {bill.days} days:{' '}
            {money(bill.cost_cents, found.currency)}
            {bill.told && <span className="block text-xs text-ink-2">{bill.told}</span>}
          </li>
        ))}
      </ul>
    </Card>
  );
}
