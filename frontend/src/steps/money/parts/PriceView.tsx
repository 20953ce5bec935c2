/** The priced list line by line, what makes prices of costs, and what incentives leave of them. */
import { Fragment } from 'react';
import type { Schemas } from '@/api/client';
import { saveTable } from '@/charts/TableBehind';
import { useJob } from '@/plan/JobContext';
import { Board } from '@/ui/Board';
import { Button } from '@/ui/Button';
import { Card } from '@/ui/Card';
import { Choice } from '@/ui/Choice';
import { FilePick, withText } from '@/ui/FilePick';
import { TypedField } from '@/ui/TypedField';
import { useScrollStop } from '@/ui/useScrollStop';
import { cash, figure, money } from '@/units/format';
import { Asked } from './Asked';
import { CountedCard } from './CountedCard';
import { IncentivesCard } from './IncentivesCard';
import { KINDS, ORDER } from './kinds';
import { MoneyField } from './MoneyField';
import { PricesOfJob } from './PricesOfJob';
import { Worked } from './Worked';

type View = Schemas['MoneyView'];
type Line = Schemas['CostLineView'];

export function PriceView({ found }: { found: View }) {
  const scrollStop = useScrollStop();
  return (
    <>
      <section
        ref={scrollStop}
        aria-label="Priced list"
        className="breaks min-h-0 grow overflow-y-auto px-4 py-2"
      >
        <Asked found={found} running={false} />
        <ul className="mb-1 text-sm">
          {found.told.map((sentence) => (
            <li key={sentence}>{sentence}</li>
          ))}
        </ul>
        <List found={found} />
        <ListTools found={found} />
        <p className="mt-2 text-xs text-ink-2">{found.caveats.join('. ')}.</p>
      </section>
      <Board heightPx={252}>
        <SumCard found={found} />
        <Card title="Price from cost" className="w-[270px] shrink-0" scrolls>
          <div className="flex flex-col gap-1">
            <RuleChoice found={found} />
            <MoneyField found={found} field="rule_frac" />
            <MoneyField found={found} field="sales_tax_frac" />
            <MoneyField found={found} field="cents_per_h" placeholder="no price" />
            <MoneyField found={found} field="electrical_h_per_kw" />
            <MoneyField found={found} field="each_job_h" />
          </div>
        </Card>
        <CountedCard found={found} />
        <IncentivesCard found={found} />
      </Board>
    </>
  );
}

function List({ found }: { found: View }) {
  const kinds = ORDER.filter((kind) => found.lines.some((line) => line.kind === kind));
  return (
    <table className="w-full max-w-[900px] border-collapse text-sm">
      <thead>
        <tr className="border-b border-ink text-left text-ink-2">
          <th scope="col" className="font-normal">
            Line
          </th>
          {['Count', 'Each', 'Cost', 'Price', 'Tax'].map((title) => (
            <th key={title} scope="col" className="pl-3 text-right font-normal">
              {title}
            </th>
          ))}
        </tr>
      </thead>
      {kinds.map((kind) => {
        const lines = found.lines.filter((line) => line.kind === kind);
        const price = lines.reduce((sum, line) => sum + (line.price_cents ?? 0), 0);
        return (
          <tbody key={kind}>
            <tr className="border-b border-rule bg-patina-wash">
              <th scope="rowgroup" colSpan={4} className="py-0.5 text-left font-semibold">
                {KINDS[kind]}
              </th>
              <td className="text-right font-figure font-semibold whitespace-nowrap">
                {cash(price, found.currency)}
              </td>
              <td />
            </tr>
            {lines.map((line) => (
              <Row key={line.line_id || line.name} line={line} currency={found.currency} />
            ))}
          </tbody>
        );
      })}
    </table>
  );
}

function Row({ line, currency }: { line: Line; currency: string }) {
  const { edit, act } = useJob();
  const own = line.line_id !== '';
  const unit = line.unit === 'pcs' || line.unit === 'set' ? '' : ` ${line.unit}`;
  return (
    <tr className="border-b border-rule">
      <th scope="row" className="py-0.5 text-left font-medium">
        {line.name}
        <span className="ml-2 text-xs font-normal text-ink-2">{line.origin}</span>
        {own && (
          <Button
            onClick={() => void act({ kind: 'remove-own-line', line_id: line.line_id })}
            aria-label={`Remove ${line.name}`}
          >
            Remove
          </Button>
        )}
      </th>
      <td className="text-right font-figure whitespace-nowrap">
        {figure(line.count, line.count % 1 ? 1 : 0)}
        {unit}
      </td>
      <td className="py-0.5 pl-3 text-right">
        <TypedField
          label={`Price of ${line.name}`}
          value={line.each_cents === null ? '' : (line.each_cents / 100).toFixed(2)}
          tone={line.each_cents === null ? 'wanted' : line.typed || own ? 'plain' : 'derived'}
          placeholder="no price"
          width={88}
          align="right"
          commit={(typed) =>
            own
              ? edit({
                  kind: 'set-own-line',
                  line_id: line.line_id,
                  name: line.name,
                  line_kind: line.kind,
                  count: String(line.count),
                  price: typed,
                })
              : edit({ kind: 'set-prices', prices: [{ name: line.name, typed }] })
          }
        />
      </td>
      <td className="pl-3 text-right font-figure whitespace-nowrap">
        {line.cost_cents === null ? '?' : cash(line.cost_cents)}
      </td>
      <td className="pl-3 text-right font-figure whitespace-nowrap">
        {line.price_cents === null ? '?' : cash(line.price_cents, currency)}
      </td>
      <td className="pl-3 text-right font-figure whitespace-nowrap">
        {line.tax_cents ? cash(line.tax_cents) : ''}
      </td>
    </tr>
  );
}

function ListTools({ found }: { found: View }) {
  const { job, act } = useJob();
  const add = (kind: string) =>
    act({
      kind: 'set-own-line',
      line_id: null,
      name: `${KINDS[kind as Schemas['LineKind']]}, own line`,
      line_kind: kind as Schemas['LineKind'],
      count: '1',
      price: '0',
    });
  return (
    <div className="mt-2 flex flex-wrap items-center gap-2">
      <Choice
        label="Add a line"
        value="none"
        items={[
          { value: 'none', label: 'Add a line …' },
          ...ORDER.map((kind) => ({ value: kind, label: KINDS[kind] })),
        ]}
        onChange={(kind) => kind !== 'none' && void add(kind)}
      />
      <Button onClick={() => saveTable(tableOf(job.name, found.lines))}>Prices (CSV)</Button>
      <FilePick
        label="Take prices from a CSV"
        accept=".csv,text/csv"
        onFile={withText((text, file) => void act({ kind: 'take-prices', text, file }))}
      />
      <PricesOfJob currency={found.currency} />
    </div>
  );
}

const tableOf = (job: string, lines: readonly Line[]) => ({
  title: `${job} prices`,
  columns: ['name', 'kind', 'count', 'unit', 'each'],
  rows: lines.map((line) => [
    line.name,
    line.kind,
    line.count,
    line.unit,
    line.each_cents === null ? '' : (line.each_cents / 100).toFixed(2),
  ]),
});

function RuleChoice({ found }: { found: View }) {
  const { act } = useJob();
  const value = found.fields.find((f) => f.field === 'rule')?.text ?? 'markup';
  return (
    <Choice
      label="Price from cost by"
      value={value}
      items={[
        { value: 'markup', label: 'markup on the cost' },
        { value: 'margin', label: 'margin of the price' },
      ]}
      onChange={(typed) => void act({ kind: 'set-money-field', field: 'rule', typed })}
      className="w-full"
    />
  );
}

function SumCard({ found }: { found: View }) {
  const { currency, whole } = found;
  const rows: [string, number][] = [
    ['Cost to the firm', found.cost_cents],
    ['Price', found.price_cents],
    ['Sales tax', found.tax_cents],
    [whole ? 'Asked, gross' : 'Gross, so far', found.gross_cents],
    [whole ? 'Net of incentives' : 'Net, so far', found.net_cents],
  ];
  return (
    <Card
      title="What it costs"
      aside={found.by_list ? '' : 'by the Brief'}
      className="w-[262px] shrink-0"
      scrolls
    >
      <dl className="text-sm">
        {rows.map(([name, cents]) => (
          <div key={name} className="flex justify-between gap-2 py-[1px]">
            <dt className={name.includes('ross') ? 'font-semibold' : ''}>{name}</dt>
            <dd className="font-figure font-semibold">{cash(cents, currency)}</dd>
          </div>
        ))}
        {(whole ? found.per_watt : []).map(({ name, cents_per_w }) => (
          <Fragment key={name}>
            <div className="flex justify-between gap-2 py-[1px] text-xs text-ink-2">
              <dt>A watt {name}</dt>
              <dd className="font-figure">{money(cents_per_w, currency)}</dd>
            </div>
          </Fragment>
        ))}
      </dl>
      <Worked worked={found.worked_price} />
    </Card>
  );
}
