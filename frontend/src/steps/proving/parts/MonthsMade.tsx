/** Months of a log: made, of what was due, performance ratio, and what was left out. */
import type { Schemas } from '@/api/client';
import { figure } from '@/units/format';

const INK: Record<Schemas['LogStanding'], string> = {
  fine: 'text-patina',
  look: 'text-warn',
  act: 'text-stop font-semibold',
  'not judged': 'text-ink-2',
};
const percent = (frac: number | null) => (frac === null ? '–' : `${figure(frac * 100, 1)} %`);

export function MonthsMade({ found }: { found: Schemas['ProductionView'] }) {
  return (
    <section aria-label="Months" className="mt-3 overflow-x-auto">
      <table className="w-full text-left [&_td]:py-1">
        <thead className="text-xs text-ink-2">
          <tr>
            <th className="py-1 pr-3 font-normal">Month</th>
            <th className="pr-3 text-right font-normal">Made, kWh</th>
            <th className="pr-3 text-right font-normal">Of what was due</th>
            <th className="pr-3 font-normal">Standing</th>
            <th className="pr-3 text-right font-normal">Days judged</th>
            {found.light_measured && (
              <>
                <th className="pr-3 text-right font-normal max-md:hidden">Performance ratio</th>
                <th className="pr-3 text-right font-normal max-md:hidden">at 25 °C</th>
              </>
            )}
            <th className="pr-3 text-right font-normal max-md:hidden">Design’s year, kWh</th>
            <th className="font-normal max-md:hidden">Left out</th>
          </tr>
        </thead>
        <tbody>
          {found.months.map((m) => (
            <tr key={m.name} className="border-t border-rule align-top">
              <td className="pr-3">
                <span className="whitespace-nowrap">{m.name}</span>
                <span className="block text-xs text-ink-2 md:hidden">{m.left_out}</span>
              </td>
              <td className="pr-3 text-right font-figure">{figure(m.made_kwh)}</td>
              <td className={`pr-3 text-right font-figure ${INK[m.standing]}`}>
                {percent(m.ratio)}
              </td>
              <td className={`whitespace-nowrap pr-3 ${INK[m.standing]}`}>{m.standing}</td>
              <td className="whitespace-nowrap pr-3 text-right font-figure">
                {m.judged_days} of {m.logged_days}
              </td>
              {found.light_measured && (
                <>
                  <td className="pr-3 text-right font-figure max-md:hidden">
                    {percent(m.performance_frac)}
                  </td>
                  <td className="pr-3 text-right font-figure max-md:hidden">
                    {percent(m.at_25_frac)}
                  </td>
                </>
              )}
              <td className="pr-3 text-right font-figure max-md:hidden">{figure(m.usual_kwh)}</td>
              <td className="text-xs text-ink-2 max-md:hidden">{m.left_out}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-1 text-xs text-ink-2">
        Fine within {figure(found.fine_band * 100)} %, worth a look within{' '}
        {figure(found.look_band * 100)} % (common practice). The design’s year is for the days that
        were logged, by its weather year: a month’s weather moves it by more than a fault.
      </p>
    </section>
  );
}
