/** Twelve bills as a table to type, paste or read from a file; what they add up to beside it. */
import { useState } from 'react';
import { useJob } from '@/plan/JobContext';
import { Button } from '@/ui/Button';
import { FilePick, withText } from '@/ui/FilePick';
import { TypedField } from '@/ui/TypedField';
import { figure, money, yearlyKwh } from '@/units/format';
import { BillsTable } from './BillsTable';

export function BillsSection() {
  return (
    <div className="flex flex-wrap gap-4">
      <BillsTable />
      <BillsAside />
    </div>
  );
}

function BillsAside() {
  const { job, brief, edit, act } = useJob();
  const { usage } = brief;
  const { bills, grid, use_kwh_per_year } = job.brief;
  return (
    <div className="w-[232px] shrink-0 text-sm">
      <h2 className="mb-1 font-semibold">What they say</h2>
      {usage ? (
        <>
          <p>
            <span className="font-figure text-lg font-semibold">{yearlyKwh(usage.energy_kwh)}</span>{' '}
            a year
          </p>
          <p className="text-xs text-ink-2">From {usage.origin}.</p>
          {usage.warnings.map((warning) => (
            <p
              key={warning}
              className="mt-1 rounded-sm border border-warn bg-warn-wash px-2 py-1 text-xs text-warn"
            >
              {warning}.
            </p>
          ))}
        </>
      ) : (
        <p className="text-ink-2">
          Type from, to and kWh of each bill; money alone will do where the tariff can be turned
          round.
        </p>
      )}
      <p className="mt-2 text-xs text-ink-2">
        {grid
          ? `Tariff for money: ${brief.tiers_typed} ${brief.small_money}, fixed ${money(grid.tariff.fixed_cents, grid.currency)} a ${grid.tariff.per}${grid.sample ? ', an invented sample' : ''}.`
          : 'No tariff yet: choose the grid rules, then money alone will do.'}
      </p>
      <div className="mt-2 flex flex-col items-start gap-1.5">
        {bills.length === 0 && <LayOut />}
        <FilePick
          label="From a CSV file"
          accept=".csv,.tsv,.txt,text/csv"
          onFile={withText((text, file) => act({ kind: 'add-bills', text, file }))}
        />
        {bills.length > 0 && (
          <Button onClick={() => act({ kind: 'remove-bills', bill_ids: [] })}>Take all away</Button>
        )}
        {bills.length === 0 && (
          <TypedField
            label="Or kWh a year"
            value={use_kwh_per_year === null ? '' : figure(use_kwh_per_year)}
            placeholder="not given"
            width={92}
            align="right"
            showLabel
            commit={(typed) => edit({ kind: 'set-use', typed })}
          />
        )}
      </div>
    </div>
  );
}

/** Lays out twelve rows, so that only the kWh are left to type. */
function LayOut() {
  const { act } = useJob();
  const [first, setFirst] = useState('');
  return (
    <form
      className="flex items-center gap-1.5"
      onSubmit={(event) => {
        event.preventDefault();
        act({ kind: 'lay-out-bills', first_day: first });
      }}
    >
      <label className="sr-only" htmlFor="first-bill">
        First day of twelve months
      </label>
      <input
        id="first-bill"
        value={first}
        onChange={(event) => setFirst(event.target.value)}
        placeholder="1 Nov 2025"
        className="h-[26px] w-[92px] rounded-md border border-field bg-sheet px-1.5 font-figure text-base"
      />
      <Button type="submit" weight="main" disabled={!first.trim()}>
        Twelve months from
      </Button>
    </form>
  );
}
