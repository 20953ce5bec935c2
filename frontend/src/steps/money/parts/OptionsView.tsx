/** Option against option: each with its own complete sum. */
import type { Option, OptionReport, Schemas } from '@/api/client';
import { moneyQuery } from '@/api/money';
import { useJob } from '@/plan/JobContext';
import { useStudy } from '@/plan/useStudy';
import { useScrollStop } from '@/ui/useScrollStop';
import { figure, money, yearlyKwh } from '@/units/format';
import { Offers } from './Offers';

const HEADS = [
  'Modules',
  'kW DC',
  'Year',
  'Gross',
  'Net',
  'Net a watt DC',
  'Saved, year 1',
  'Paid back',
  'Worth today',
];

export function OptionsView({ found }: { found: Schemas['MoneyView'] }) {
  const { job, state } = useJob();
  const scrollStop = useScrollStop();
  return (
    <section
      ref={scrollStop}
      aria-label="Options compared by money"
      className="breaks relative min-h-0 grow overflow-auto px-4 py-2"
    >
      <table className="w-full max-w-[980px] border-collapse text-sm">
        <thead>
          <tr className="border-b border-ink text-ink-2">
            <th scope="col" className="text-left font-normal">
              Option
            </th>
            {HEADS.map((title) => (
              <th key={title} scope="col" className="pl-3 text-right font-normal">
                {title}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {job.options.map((option) => {
            const report = state.reports.find((r) => r.option_id === option.id);
            return report && <Row key={option.id} option={option} report={report} />;
          })}
        </tbody>
      </table>
      <p className="mt-2 text-xs text-ink-2">
        Every option is worked out whole, on the same tariff and expectations; nothing here is a
        slope of another.
      </p>
      <Offers found={found} />
    </section>
  );
}

function Row({ option, report }: { option: Option; report: OptionReport }) {
  const { at } = useJob();
  const { found, behind, error } = useStudy(moneyQuery({ ...at, optionId: option.id }));
  const name = `${option.id.toUpperCase()} ${option.name}`;
  const cells = found
    ? [
        figure(report.modules),
        figure(report.p_dc_w / 1000, 2),
        found.rows[1] ? yearlyKwh(found.rows[1].energy_kwh) : '',
        money(found.gross_cents, found.currency),
        money(found.net_cents, found.currency),
        money(found.per_watt[1]?.cents_per_w ?? null, found.currency),
        found.rows[1] ? money(found.rows[1].saved_cents, found.currency) : '',
        found.worth
          ? found.worth.paid.lasting === null
            ? 'never'
            : `${figure(found.worth.paid.lasting, 1)} years`
          : '',
        found.worth ? money(found.worth.npv_cents, found.currency) : '',
      ]
    : [];
  const asked = error?.message ?? found?.asked ?? '';
  return (
    <>
      <tr
        className={`border-b border-rule text-right font-figure ${behind ? 'opacity-50' : ''}`}
        aria-busy={behind}
      >
        <th scope="row" className="py-1 text-left font-sans font-medium">
          {name}
        </th>
        {HEADS.map((head, i) => (
          <td key={head} className="pl-3 whitespace-nowrap">
            {cells[i] ?? ''}
          </td>
        ))}
      </tr>
      {asked && (
        <tr>
          <td colSpan={HEADS.length + 1} className="pb-1 text-xs text-ink-2">
            {asked}
          </td>
        </tr>
      )}
    </>
  );
}
