/** When the AC limit cuts: kWh by month and hour, and days with any and with much of it. */
import type { YearReport } from '@/api/client';
import { useScrollStop } from '@/ui/useScrollStop';
import { figure, MONTHS } from '@/units/format';

const HOURS = Array.from({ length: 24 }, (_, h) => h);

export function ClipCalendarView({ year }: { year: YearReport }) {
  const scrollStop = useScrollStop();
  const { kwh, days_any, days_much } = year.calendar;
  const hours = HOURS.filter((h) => kwh.some((row) => (row[h] ?? 0) >= 0.05));
  const most = Math.max(1e-9, ...kwh.flat());
  if (hours.length === 0)
    return (
      <p className="grow p-6 text-base text-ink-2">
        Nothing is clipped all year: the inverter carries every hour of this array.
      </p>
    );
  return (
    <div ref={scrollStop} className="min-h-0 grow overflow-auto px-4 py-3">
      <table
        className="w-full table-fixed max-md:min-w-[760px] border-separate border-spacing-[2px] text-sm"
        aria-label="Clipped by month and hour, kWh"
      >
        <thead>
          <tr className="text-xs text-ink-2">
            <th className="w-[70px] text-left font-normal">kWh, hour</th>
            {hours.map((h) => (
              <th key={h} scope="col" className="font-normal">
                {h}
              </th>
            ))}
            <th className="w-[84px] font-normal">days with any</th>
            <th className="w-[96px] font-normal">more than 10 %</th>
          </tr>
        </thead>
        <tbody>
          {MONTHS.map((month, m) => (
            <tr key={month}>
              <th scope="row" className="text-left font-normal">
                {month}
              </th>
              {hours.map((h) => {
                const cut = kwh[m]?.[h] ?? 0;
                return (
                  <td
                    key={h}
                    className="h-7 text-center font-figure"
                    style={{
                      background: `color-mix(in srgb, var(--color-stop-pale) ${Math.round((cut / most) * 100)}%, var(--color-sheet))`,
                    }}
                  >
                    {cut >= 0.05 ? figure(cut, cut < 10 ? 1 : 0) : ''}
                  </td>
                );
              })}
              <td className="text-center font-figure">{days_any[m]}</td>
              <td className="text-center font-figure">{days_much[m]}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-1 text-xs text-ink-2">
        {figure(year.clipped_kwh)} kWh in {figure(year.clipped_hours)} hours with the minutes within
        each hour; {figure(year.clipped_hourly_kwh)} kWh in even hours,{' '}
        {figure(year.clipped_most_kwh)} kWh where sun and cloud change most. Standard time.
      </p>
    </div>
  );
}
