/** Year by year: the running total, every sum behind it, and what is expected of the years. */
import { Fragment, useState } from 'react';
import type { Schemas } from '@/api/client';
import { RunningTotal } from '@/charts/RunningTotal';
import { TableBehind } from '@/charts/TableBehind';
import { useJob } from '@/plan/JobContext';
import { Board } from '@/ui/Board';
import { Button } from '@/ui/Button';
import { Card } from '@/ui/Card';
import { Choice } from '@/ui/Choice';
import { Fitted } from '@/ui/Fitted';
import { useScrollStop } from '@/ui/useScrollStop';
import { cash, figure, money } from '@/units/format';
import { Asked } from './Asked';
import { MoneyField } from './MoneyField';
import { Worked } from './Worked';

type View = Schemas['MoneyView'];

export function YearsView({ found, running }: { found: View; running: boolean }) {
  const { job } = useJob();
  const [open, setOpen] = useState(false);
  const scrollStop = useScrollStop();
  const { rows, worth, currency } = found;
  const tables = job.survey.planes.some((plane) => plane.ground !== null);
  return (
    <>
      <section
        ref={scrollStop}
        aria-label="Year by year"
        className="breaks min-h-0 grow overflow-y-auto px-4 py-2"
      >
        {!worth ? (
          <Asked found={found} running={running} />
        ) : (
          <>
            <ul className="mb-1 text-sm">
              {found.told.map((sentence) => (
                <li key={sentence}>{sentence}</li>
              ))}
            </ul>
            <Fitted mostPx={900}>
              {(widthPx) => (
                <RunningTotal
                  label="Running total by year, and at today’s worth"
                  runningCents={rows.map((r) => r.running_cents)}
                  discountedCents={rows.map((r) => r.discounted_cents)}
                  currency={currency}
                  widthPx={widthPx}
                  heightPx={230}
                />
              )}
            </Fitted>
            <Rows rows={rows} worked={found.worked_rows} />
            <p className="mt-1">
              <Button onClick={() => setOpen(true)}>All of the table</Button>
            </p>
            <TableBehind table={tableOf(job.name, found)} open={open} onOpenChange={setOpen} />
          </>
        )}
        <p className="mt-2 text-xs text-ink-2">{found.caveats.join('. ')}.</p>
      </section>
      <Board heightPx={252}>
        {worth && <WorthCard found={found} worth={worth} />}
        <Card title="Expected" aside="dashed: usual" className="w-[270px] shrink-0" scrolls>
          <div className="flex flex-col gap-1">
            <MoneyField found={found} field="years" />
            <MoneyField found={found} field="energy_rise_frac" />
            <MoneyField found={found} field="fixed_rise_frac" />
            <MoneyField found={found} field="export_rise_frac" />
            <MoneyField found={found} field="ageing_frac" placeholder="datasheet" />
            <MoneyField found={found} field="discount_frac" />
            <MoneyField found={found} field="upkeep_cents" />
            <MoneyField found={found} field="upkeep_rise_frac" />
            {tables && <MoneyField found={found} field="tilt_change_cents" />}
            <MoneyField found={found} field="inverter_year" />
            <MoneyField found={found} field="inverter_cents" placeholder="as today" />
            <MoneyField found={found} field="contract" />
            <MoneyField found={found} field="in_service" />
          </div>
        </Card>
        <Card title="Who pays, and how" className="w-[270px] shrink-0" scrolls>
          <div className="flex flex-col gap-1">
            <OwnerChoice found={found} />
            <MoneyField found={found} field="tax_frac" />
            <MoneyField found={found} field="tax_cents_per_year" placeholder="enough" />
            <MoneyField found={found} field="loan_share_frac" placeholder="no loan" />
            <MoneyField found={found} field="loan_rate_frac" />
            <MoneyField found={found} field="loan_years" />
            <MoneyField found={found} field="loan_fee_frac" />
          </div>
        </Card>
      </Board>
    </>
  );
}

function OwnerChoice({ found }: { found: View }) {
  const { act } = useJob();
  return (
    <Choice
      label="Owner"
      value={found.fields.find((f) => f.field === 'owner')?.text ?? 'household'}
      items={[
        { value: 'household', label: 'owned by the household' },
        { value: 'company', label: 'owned by a company' },
      ]}
      onChange={(typed) => void act({ kind: 'set-money-field', field: 'owner', typed })}
      className="w-full"
    />
  );
}

const years = (value: number | null) => (value === null ? 'never' : `${figure(value, 1)} years`);

function WorthCard({ found, worth }: { found: View; worth: Schemas['Worth'] }) {
  const { brief } = useJob();
  const small = brief.small_money;
  const { currency, loan } = found;
  const rows: [string, string][] = [
    ['Saved in year 1', money(found.rows[1]?.saved_cents ?? null, currency)],
    ['Paid back', years(worth.paid.lasting)],
    ['Paid back, discounted', years(worth.paid_discounted.lasting)],
    ['Worth today', money(worth.npv_cents, currency)],
    [
      'Rate of return',
      worth.irr_frac === null ? 'none to tell' : `${figure(worth.irr_frac * 100, 1)} %`,
    ],
    ['Over all years', money(worth.total_cents, currency)],
    ['Cost of a kWh', worth.kwh_cents === null ? '' : `${figure(worth.kwh_cents, 1)} ${small}`],
  ];
  if (loan) rows.push(['Loan a month', money(loan.monthly_cents, currency)]);
  return (
    <Card title="Worth" className="w-[262px] shrink-0" scrolls>
      <dl className="text-sm">
        {rows.map(([name, value]) => (
          <div key={name} className="flex justify-between gap-2 py-[1px]">
            <dt>{name}</dt>
            <dd className="font-figure font-semibold">{value}</dd>
          </div>
        ))}
      </dl>
      <Worked worked={found.worked_worth} />
    </Card>
  );
}

const COLUMNS: [string, (r: Schemas['YearRow']) => number][] = [
  ['Price', (r) => -r.price_cents],
  ['Saved', (r) => r.saved_cents],
  ['Upkeep', (r) => -r.upkeep_cents],
  ['Inverter', (r) => -r.inverter_cents],
  ['Incentives', (r) => r.incentives_cents],
  ['Loan', (r) => -r.loan_cents],
  ['Net', (r) => r.net_cents],
  ['Running', (r) => r.running_cents],
];

interface RowsProps {
  rows: readonly Schemas['YearRow'][];
  worked: readonly Schemas['WorkedView'][];
}

function Rows({ rows, worked }: RowsProps) {
  const [open, setOpen] = useState<number | null>(null);
  const shown = COLUMNS.filter(([name, pick]) => name === 'Net' || rows.some((r) => pick(r) !== 0));
  return (
    <table className="mt-1 w-full max-w-[900px] border-collapse text-sm">
      <thead>
        <tr className="border-b border-ink text-ink-2">
          <th scope="col" className="text-left font-normal">
            Year
          </th>
          <th scope="col" className="pl-3 text-right font-normal">
            kWh
          </th>
          {shown.map(([name]) => (
            <th key={name} scope="col" className="pl-3 text-right font-normal">
              {name}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((r) => (
          <Fragment key={r.year}>
            <tr className="border-b border-rule text-right font-figure">
              <th scope="row" className="text-left font-sans font-medium">
                <button
                  type="button"
                  aria-expanded={open === r.year}
                  aria-label={`Year ${r.year}, how it is worked out`}
                  className="min-h-6 min-w-8 cursor-pointer text-left underline decoration-dotted underline-offset-2"
                  onClick={() => setOpen(open === r.year ? null : r.year)}
                >
                  {r.year}
                </button>
              </th>
              <td>{r.energy_kwh ? figure(r.energy_kwh) : ''}</td>
              {shown.map(([name, pick]) => (
                <td key={name} className="whitespace-nowrap">
                  {pick(r) ? cash(pick(r)) : ''}
                </td>
              ))}
            </tr>
            {open === r.year && (
              <tr className="border-b border-rule">
                <td colSpan={shown.length + 2} className="py-1 pl-8">
                  <ul className="font-figure text-xs text-ink-2">
                    {worked[r.year]?.lines.map((line) => (
                      <li key={line}>{line}</li>
                    ))}
                  </ul>
                </td>
              </tr>
            )}
          </Fragment>
        ))}
      </tbody>
    </table>
  );
}

const tableOf = (job: string, found: View) => ({
  title: `${job} years`,
  columns: [
    'Year',
    'kWh',
    'Bills without',
    'Bills with',
    ...COLUMNS.map(([name]) => name),
    'Running today',
  ],
  rows: found.rows.map((r) => [
    r.year,
    Math.round(r.energy_kwh),
    (r.before_cents / 100).toFixed(2),
    (r.after_cents / 100).toFixed(2),
    ...COLUMNS.map(([, pick]) => (pick(r) / 100).toFixed(2)),
    (r.discounted_cents / 100).toFixed(2),
  ]),
});
