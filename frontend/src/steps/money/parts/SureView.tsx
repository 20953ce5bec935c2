/** How sure it is: each unknown alone, then all of them in many draws. */
import type { Schemas } from '@/api/client';
import { sureQuery } from '@/api/money';
import { Tornado } from '@/charts/Tornado';
import { useJob } from '@/plan/JobContext';
import { useStudy } from '@/plan/useStudy';
import { Fitted } from '@/ui/Fitted';
import { Failed, Waiting } from '@/ui/States';
import { useScrollStop } from '@/ui/useScrollStop';
import { figure, money } from '@/units/format';

export function SureView({ currency }: { currency: string }) {
  const { at } = useJob();
  const scrollStop = useScrollStop();
  const { found, behind, error } = useStudy(sureQuery(at));
  if (error) return <Failed error={error} />;
  if (!found)
    return (
      <Waiting shows="What each unknown does to the worth alone, and all of them together.">
        Working out how sure it is
      </Waiting>
    );
  return (
    <section
      ref={scrollStop}
      aria-label="How sure"
      aria-busy={behind}
      className={`breaks min-h-0 grow overflow-y-auto px-4 py-3 ${behind ? 'opacity-50' : ''}`}
    >
      <h2 className="text-sm font-semibold">
        Worth today, {money(found.npv_cents, currency)}, with one thing otherwise
      </h2>
      <Fitted mostPx={860}>
        {(widthPx) => (
          <Tornado
            label="Worth today with one thing otherwise, widest first"
            middleCents={found.npv_cents}
            bars={found.unknowns.map((u) => ({
              name: u.name,
              low: u.low,
              high: u.high,
              lowCents: u.low_npv_cents,
              highCents: u.high_npv_cents,
            }))}
            currency={currency}
            widthPx={widthPx}
          />
        )}
      </Fitted>
      <h2 className="mt-3 text-sm font-semibold">All of them at once</h2>
      <table className="w-full max-w-[640px] border-collapse text-sm">
        <thead>
          <tr className="border-b border-ink text-ink-2">
            <th scope="col" className="text-left font-normal">
              Estimate
            </th>
            {['1 in 10 below', 'middle', '1 in 10 above'].map((title) => (
              <th key={title} scope="col" className="pl-3 text-right font-normal">
                {title}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          <BandRow
            name="Worth today"
            band={found.npv}
            told={(v) => money(Math.round(v / 100) * 100, currency)}
          />
          <BandRow name="Paid back" band={found.paid} told={(v) => `${figure(v, 1)} years`} />
        </tbody>
      </table>
      {found.never_frac > 0 && (
        <p className="mt-1 text-sm">
          In {figure(found.never_frac * 100, 1)} % of the draws it does not pay itself back within
          the table.
        </p>
      )}
      <p className="mt-2 text-xs text-ink-2">{found.told.join('. ')}.</p>
    </section>
  );
}

interface BandRowProps {
  name: string;
  band: Schemas['Band'];
  told: (value: number) => string;
}

function BandRow({ name, band, told }: BandRowProps) {
  return (
    <tr className="border-b border-rule text-right font-figure">
      <th scope="row" className="py-0.5 text-left font-sans font-medium">
        {name}
      </th>
      {[band.low, band.middle, band.high].map((value, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a column is its place
        <td key={i} className="pl-3">
          {value === null ? 'never' : told(value)}
        </td>
      ))}
    </tr>
  );
}
