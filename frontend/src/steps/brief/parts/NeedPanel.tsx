/** The chart of the year: what was billed, what is guessed, what comes, what the array makes. */
import { useState } from 'react';
import type { TargetReport } from '@/api/client';
import { NeedChart } from '@/charts/NeedChart';
import { TableBehind } from '@/charts/TableBehind';
import { useJob } from '@/plan/JobContext';
import { Button } from '@/ui/Button';
import { useSize } from '@/ui/useSize';
import { figure, MONTHS, yearlyKwh } from '@/units/format';

const sum = (values: readonly number[]) => values.reduce((whole, kwh) => whole + kwh, 0);

export function NeedPanel({ target }: { target: TargetReport | undefined }) {
  const { brief } = useJob();
  const [tableOpen, setTableOpen] = useState(false);
  const [size, measure] = useSize();
  const { usage, loads, need_kwh: need } = brief;
  const billed = usage?.billed_kwh ?? [];
  const guessed = MONTHS.map((_, i) => (usage?.monthly_kwh[i] ?? 0) - (billed[i] ?? 0));
  const toCome = MONTHS.map((_, i) => sum(loads.map((l) => l.monthly_kwh[i] ?? 0)));
  const array = target?.monthly_kwh ?? [];
  return (
    <section aria-label="Need of the year" className="flex min-w-0 grow flex-col">
      <div className="flex items-baseline justify-between gap-2">
        <h2 className="text-sm font-semibold">
          {need === null
            ? 'No use yet: give the place, then the bills'
            : `Need ${yearlyKwh(need)} a year`}
        </h2>
        <Button onClick={() => setTableOpen(true)}>As table</Button>
      </div>
      <div ref={measure} className="min-h-0 grow">
        {size && (
          <NeedChart
            billedKwh={billed}
            guessedKwh={guessed}
            toComeKwh={toCome}
            arrayKwh={array}
            arrayTitle={target?.monthly_title ?? ''}
            widthPx={size.widthPx}
            heightPx={Math.max(180, size.heightPx)}
          />
        )}
      </div>
      <p className="flex flex-wrap gap-x-3 text-xs text-ink-2">
        <Key className="bg-ink-3">{`billed ${yearlyKwh(sum(billed))}`}</Key>
        {guessed.some((kwh) => kwh > 1) && (
          <Key className="border border-ink-3 bg-sheet">{`guessed ${yearlyKwh(sum(guessed))}`}</Key>
        )}
        {loads.length > 0 && (
          <Key className="bg-straw">{`loads to come ${yearlyKwh(sum(toCome))}`}</Key>
        )}
        <span>
          <span className="mr-1 inline-block h-0.5 w-4 bg-copper align-middle" />
          array {yearlyKwh(sum(array))}
        </span>
      </p>
      <TableBehind
        table={{
          title: 'Need of the year',
          columns: ['Month', 'Billed kWh', 'Guessed kWh', 'To come kWh', 'Array kWh'],
          rows: MONTHS.map((month, i) => [
            month,
            ...[billed, guessed, toCome, array].map((values) => figure(values[i] ?? 0)),
          ]),
        }}
        open={tableOpen}
        onOpenChange={setTableOpen}
      />
    </section>
  );
}

function Key({ className, children }: { className: string; children: string }) {
  return (
    <span>
      <span className={`mr-1 inline-block h-2.5 w-2.5 ${className}`} />
      {children}
    </span>
  );
}
