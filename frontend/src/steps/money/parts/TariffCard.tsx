/** The tariff as it is typed: charges, tiers or prices by the hour, what export earns. */
import { useQuery } from '@tanstack/react-query';
import type { Schemas } from '@/api/client';
import { shelfQuery } from '@/api/queries';
import { CHARGED_PER, METERING } from '@/plan/gridTerms';
import { useJob } from '@/plan/JobContext';
import { Button } from '@/ui/Button';
import { Card } from '@/ui/Card';
import { Choice } from '@/ui/Choice';
import { TypedField } from '@/ui/TypedField';

type Tariff = Schemas['TariffView'];
type Period = Schemas['TypedPeriod'];

const DAYS = [
  { value: 'every-day', label: 'every day' },
  { value: 'workdays', label: 'workdays' },
  { value: 'weekends', label: 'weekends' },
];

export function TariffCard({ tariff, small }: { tariff: Tariff; small: string }) {
  const { edit, act } = useJob();
  const typed = (
    field: Schemas['GridField'],
    label: string,
    value: string,
    placeholder = 'none',
  ) => (
    <TypedField
      label={label}
      value={value}
      placeholder={placeholder}
      showLabel
      width={92}
      align="right"
      commit={(text) => edit({ kind: 'set-grid-field', field, typed: text })}
    />
  );
  return (
    <>
      <Card
        title="Tariff"
        aside={tariff.sample ? 'sample' : ''}
        className="w-[282px] shrink-0"
        scrolls
      >
        <p className="mb-1 text-xs text-ink-2">
          {tariff.operator}, as of {tariff.dated}
        </p>
        <div className="flex flex-col gap-1">
          <SampleChoice currency={tariff.currency} />
          <Choice
            label="Metering"
            value={tariff.metering}
            items={METERING}
            onChange={(text) =>
              void act({ kind: 'set-grid-field', field: 'metering', typed: text })
            }
            className="w-full"
          />
          {tariff.metering === 'net' &&
            typed('trueup_month', 'True-up after', tariff.trueup, 'each month')}
          {typed('export_cents_per_kwh', `Paid for export, ${small}`, tariff.export)}
          <Choice
            label="Charges count for each"
            value={tariff.per}
            items={CHARGED_PER}
            onChange={(text) =>
              void act({ kind: 'set-grid-field', field: 'tariff_per', typed: text })
            }
            className="w-full"
          />
          {typed('fixed_cents', 'Fixed charge', tariff.fixed)}
          {typed('minimum_cents', 'Minimum', tariff.minimum)}
          {typed('tax_frac', 'Tax', tariff.tax)}
          {typed('demand_cents_per_kw', 'Month’s highest kW', tariff.demand)}
          {tariff.periods.length === 0 && typed('tiers', `A kWh, ${small}`, tariff.tiers)}
        </div>
      </Card>
      <Hours tariff={tariff} small={small} />
    </>
  );
}

const NONE = 'none';

function SampleChoice({ currency }: { currency: string }) {
  const { act } = useJob();
  const shelf = useQuery(shelfQuery);
  const listed = (shelf.data?.tariffs ?? []).filter((t) => t.currency === currency);
  return (
    <Choice
      label="Begin with a sample tariff"
      value={NONE}
      items={[
        { value: NONE, label: 'begin with a sample tariff' },
        ...listed.map((t) => ({ value: t.id, label: t.name })),
      ]}
      onChange={(id) => id !== NONE && void act({ kind: 'take-tariff', tariff_id: id })}
      className="w-full"
    />
  );
}

function Hours({ tariff, small }: { tariff: Tariff; small: string }) {
  const { edit, act } = useJob();
  const { periods } = tariff;
  const set = (next: Period[]) => edit({ kind: 'set-rate-periods', periods: next });
  const changed = (n: number, part: Partial<Period>) =>
    periods.map((p, i) => (i === n ? { ...p, ...part } : p));
  const first: Period[] = [
    { name: 'peak', months: '', days: 'workdays', hours: '16-21', buy: '30', sell: '' },
    { name: 'other hours', months: '', days: 'every-day', hours: '', buy: '15', sell: '' },
  ];
  if (periods.length === 0)
    return (
      <Card title="Prices by the hour" className="w-[220px] shrink-0">
        <p className="mb-1 text-sm">None: every kWh costs the same at any hour.</p>
        <Button onClick={() => void act({ kind: 'set-rate-periods', periods: first })}>
          Prices by the hour
        </Button>
      </Card>
    );
  return (
    <Card
      title="Prices by the hour"
      aside={`${small} a kWh`}
      className="relative w-[560px] shrink-0"
      scrolls
    >
      <table className="w-full text-sm">
        <thead>
          <tr className="text-left text-xs text-ink-2">
            {['Name', 'Months', 'Days', 'Hours', 'Bought', 'Sent', 'Remove'].map((title) => (
              <th
                key={title}
                scope="col"
                className={title === 'Remove' ? 'sr-only' : 'font-normal'}
              >
                {title}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {periods.map((p, n) => {
            const cell = (
              part: 'name' | 'months' | 'hours' | 'buy' | 'sell',
              label: string,
              width: number,
              placeholder = '',
            ) => (
              <td>
                <TypedField
                  label={`${label}, ${p.name}`}
                  value={p[part]}
                  placeholder={placeholder}
                  width={width}
                  align="left"
                  commit={(text) => set(changed(n, { [part]: text }))}
                />
              </td>
            );
            return (
              // biome-ignore lint/suspicious/noArrayIndexKey: lines have no name but their place
              <tr key={n}>
                {cell('name', 'Name', 92)}
                {cell('months', 'Months', 84, 'all year')}
                <td>
                  <Choice
                    label={`Days, ${p.name}`}
                    value={p.days}
                    items={DAYS}
                    onChange={(days) =>
                      void act({
                        kind: 'set-rate-periods',
                        periods: changed(n, { days: days as Period['days'] }),
                      })
                    }
                    className="w-[104px]"
                  />
                </td>
                {cell('hours', 'Hours', 78, 'all left')}
                {cell('buy', 'Bought', 58)}
                {cell('sell', 'Sent', 58, 'as ever')}
                <td>
                  <Button
                    aria-label={`Remove ${p.name}`}
                    onClick={() =>
                      void act({
                        kind: 'set-rate-periods',
                        periods: periods.filter((_, i) => i !== n),
                      })
                    }
                  >
                    Remove
                  </Button>
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <div className="mt-1 flex flex-wrap items-center gap-2">
        <Button
          onClick={() =>
            void act({
              kind: 'set-rate-periods',
              periods: [
                {
                  name: `hours ${periods.length + 1}`,
                  months: '',
                  days: 'workdays',
                  hours: '7-9',
                  buy: '20',
                  sell: '',
                },
                ...periods,
              ],
            })
          }
        >
          Add hours
        </Button>
        <TypedField
          label="Holidays"
          value={tariff.holidays}
          placeholder="1 Jan, 25 Dec"
          showLabel
          width={180}
          align="left"
          commit={(text) => edit({ kind: 'set-grid-field', field: 'holidays', typed: text })}
        />
      </div>
    </Card>
  );
}
