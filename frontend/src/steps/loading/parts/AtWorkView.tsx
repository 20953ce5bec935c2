/** How hard the inverter works: hours by load, other sizes of it, and the years to come. */
import { max } from 'd3-array';
import type { ReactNode } from 'react';
import type { YearReport } from '@/api/client';
import { useScrollStop } from '@/ui/useScrollStop';
import { figure, signed } from '@/units/format';

export function AtWorkView({ year }: { year: YearReport }) {
  const scrollStop = useScrollStop();
  const { bands, sizes, best_from_frac, best_to_frac } = year.at_work;
  const most = max(bands, (b) => b.hours) ?? 1;
  const whole = bands.reduce((sum, b) => sum + b.kwh, 0);
  return (
    <div ref={scrollStop} className="beside min-h-0 grow gap-6 overflow-auto px-4 py-3">
      <section aria-label="Hours by load" className="min-w-[400px] grow basis-0">
        <Head title="Hours a year by load">
          green: at its best, {figure(best_from_frac * 100)} to {figure(best_to_frac * 100)} % of{' '}
          {figure(year.limit_kw, 2)} kW
        </Head>
        <table className="w-full text-sm">
          <thead>
            <tr className="text-left text-xs text-ink-2">
              <th className="w-[92px] font-normal">Load</th>
              <th className="font-normal">Hours</th>
              <th className="w-[84px] text-right font-normal">of the kWh</th>
              <th className="w-[84px] text-right font-normal">Efficiency</th>
            </tr>
          </thead>
          <tbody>
            {bands.map((b) => (
              <tr key={b.from_frac} className="h-9">
                <th scope="row" className="text-left font-normal">
                  {figure(b.from_frac * 100)} to {figure(b.to_frac * 100)} %
                </th>
                <td>
                  <span className="flex items-center gap-2">
                    <span
                      className={`block h-[22px] ${b.best ? 'bg-patina' : 'bg-straw'}`}
                      style={{ width: `${(b.hours / most) * 72}%` }}
                    />
                    <span className="font-figure">{figure(b.hours)}</span>
                  </span>
                </td>
                <td className="text-right font-figure">
                  {figure(whole > 0 ? (b.kwh / whole) * 100 : 0, 1)} %
                </td>
                <td className="text-right font-figure">{figure(b.efficiency_frac * 100, 1)} %</td>
              </tr>
            ))}
          </tbody>
        </table>
      </section>
      <div className="flex w-[400px] shrink-0 flex-col gap-6">
        <section aria-label="Other sizes of this inverter">
          <Head title="The same inverter in other sizes">its own curve scaled</Head>
          <table className="w-full text-sm">
            <thead>
              <tr className="text-left text-xs text-ink-2">
                <th className="font-normal">Size</th>
                <th className="text-right font-normal">Hours at its best</th>
                <th className="text-right font-normal">Mean efficiency</th>
              </tr>
            </thead>
            <tbody>
              {sizes.map((s) => (
                <tr
                  key={s.size_frac}
                  className={`h-7 ${s.size_frac === 1 ? 'font-semibold' : 'font-normal'}`}
                >
                  <th scope="row" className="text-left [font-weight:inherit]">
                    {figure(s.rating_kw, 2)} kW
                  </th>
                  <td className="text-right font-figure">{figure(s.best_hours)}</td>
                  <td className="text-right font-figure">{figure(s.efficiency_frac * 100, 2)} %</td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
        <section aria-label="Heat of the cabinet" className="text-sm">
          <Head title="Heat of the cabinet">estimated where its sheet is silent</Head>
          <p>
            Warmest {figure(year.cabinet_most_degc)} °C.{' '}
            {year.hot_loss_kwh === null
              ? 'Its datasheet names no derating by heat: none is taken off.'
              : `Derating by heat takes ${figure(year.hot_loss_kwh)} kWh a year.`}
          </p>
        </section>
        <Years kwh={year.by_age_kwh} />
      </div>
    </div>
  );
}

function Head({ title, children }: { title: string; children: ReactNode }) {
  return (
    <div className="mb-1 flex items-baseline justify-between gap-2">
      <h2 className="text-sm font-semibold">{title}</h2>
      <span className="text-xs text-ink-2">{children}</span>
    </div>
  );
}

const SHOWN = [1, 5, 10, 15, 20, 25];

/** Energy of later years: modules age, and the limit cuts less of what they give. */
function Years({ kwh }: { kwh: readonly number[] }) {
  const first = kwh[0] ?? 0;
  return (
    <section aria-label="Years to come">
      <Head title="Years to come, kWh">modules age, less is clipped</Head>
      <dl className="grid grid-cols-6 gap-x-2 text-center text-sm">
        {SHOWN.map((year) => {
          const value = kwh[year - 1] ?? 0;
          return (
            <div key={year}>
              <dt className="text-xs text-ink-2">year {year}</dt>
              <dd className="font-figure">{figure(Math.round(value / 10) * 10)}</dd>
              <dd className="text-xs text-ink-2">
                {first > 0 ? signed((value / first - 1) * 100, 1) || '0.0' : '0.0'} %
              </dd>
            </div>
          );
        })}
      </dl>
    </section>
  );
}
