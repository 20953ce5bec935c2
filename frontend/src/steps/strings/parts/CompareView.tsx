/** The ways to the grid point by point on this roof: which of them, and why. */
import type { OptionAt } from '@/api/asking';
import type { Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { NoAc } from '@/plan/NoAc';
import { useStudy } from '@/plan/useStudy';
import { Button } from '@/ui/Button';
import { Mark } from '@/ui/Mark';
import { figure, money, signed } from '@/units/format';
import { comparisonQuery } from '../queries';
import { Study } from './Study';

type Way = Schemas['WayTold'];

export function CompareView() {
  const { at, report } = useJob();
  return report.makes_ac ? <Ways at={at} /> : <NoAc />;
}

function Ways({ at }: { at: OptionAt }) {
  return (
    <Study
      study={useStudy(comparisonQuery(at), ({ ways }) => ways.length > 0)}
      waiting="Working out the year of strings alone"
      coming="Strings alone, optimizers and microinverters side by side: kWh, price and what each keeps; the first stands in a moment."
    >
      {(comparison, running) => <Compared comparison={comparison} running={running} />}
    </Study>
  );
}

interface ComparedProps {
  comparison: Schemas['Comparison'];
  running: boolean;
}

function Compared({ comparison, running }: ComparedProps) {
  const { act } = useJob();
  const { ways, titles } = comparison;
  return (
    <section aria-label="Ways compared" className="relative min-h-0 grow overflow-auto px-4 py-3">
      <div
        aria-label="Which, and why"
        role="status"
        className="mb-3 rounded-md border border-patina bg-patina-wash px-3 py-2 text-sm"
      >
        {running ? (
          `${ways.length} of ${comparison.of} ways worked out`
        ) : (
          <>
            <p className="text-base font-semibold">{comparison.which}</p>
            <ul>
              {comparison.why.map((sentence) => (
                <li key={sentence}>{sentence}</li>
              ))}
            </ul>
          </>
        )}
      </div>
      <table className="w-full table-fixed border-collapse text-sm max-md:min-w-[720px]">
        <thead>
          <tr className="align-top text-left">
            <th className="w-[98px]">
              <span className="sr-only">Point</span>
            </th>
            {ways.map((way) => (
              <th key={way.architecture} scope="col" className="px-2 pb-2 font-normal">
                <WayHead
                  way={way}
                  chosen={comparison.chosen === way.architecture}
                  onTake={() => way.edit && void act(way.edit)}
                />
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {titles.map((title, i) => (
            <tr key={title} className="border-t border-rule align-top">
              <th scope="row" className="py-1.5 pr-2 text-left text-xs font-medium text-ink-2">
                {title}
              </th>
              {ways.map((way) => (
                <td key={way.architecture} className="px-2 py-1.5 text-xs">
                  {way.points[i] || <span className="text-ink-2">being worked out</span>}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-2 text-xs text-ink-2">
        Same modules, same shade, by the hour. Worth it: paid back by the energy within 12 years
        (our own line). Cost is that of modules, inverters and electronics alone
        {comparison.sample_prices && ', at invented sample prices'}. Conversions keep what the
        sheets and a charger of 97 % (common practice, no source) leave, without the battery’s own
        loss.
        {comparison.unknown_prices.length > 0 &&
          ` No price is known for ${comparison.unknown_prices.join(', ')}.`}
      </p>
    </section>
  );
}

interface WayHeadProps {
  way: Way;
  chosen: boolean;
  onTake: () => void;
}

function WayHead({ way, chosen, onTake }: WayHeadProps) {
  const more = way.unclipped_kwh ?? 0;
  return (
    <div className={`rounded-md px-2 py-1.5 ${chosen ? 'bg-patina-wash' : 'bg-bar'}`}>
      <p className="flex items-center gap-1.5 font-semibold">
        <Mark shape={!way.legal ? 'square' : way.not_checked ? 'triangle' : 'circle'} />
        {way.title}
      </p>
      <p className="font-figure text-lg font-semibold whitespace-nowrap">
        {way.energy_kwh === null ? 'no year' : `${figure(way.energy_kwh)} kWh`}
      </p>
      <p className="font-figure">
        {way.architecture === 'strings' || way.gain_kwh === null || way.gain_frac === null
          ? 'the others against it'
          : `${signed(way.gain_kwh) || '±0'} kWh, ${signed(way.gain_frac * 100, 1) || '0.0'} %`}
      </p>
      <p className="text-xs text-ink-2">
        {Math.abs(more) >= 1 &&
          way.architecture !== 'strings' &&
          `of it ${signed(more)} kWh by what its AC limit cuts`}
        {(Math.abs(more) < 1 || way.architecture === 'strings') && ' '}
      </p>
      <p className="font-figure">
        {way.cents === null ? 'price not known' : money(way.cents)}
        {way.extra_cents !== null && way.extra_cents !== 0 && (
          <span className="text-ink-2">
            , {way.extra_cents > 0 ? '+' : '−'}
            {money(Math.abs(way.extra_cents))}
          </span>
        )}
      </p>
      <p className="text-xs text-ink-2">{way.made_of}</p>
      {way.edit === null ? (
        <p className="mt-1 flex h-[27px] items-center text-xs text-ink-2">as this option is</p>
      ) : (
        <Button className="mt-1" aria-label={`Take it: ${way.title}`} onClick={onTake}>
          Take it
        </Button>
      )}
      {way.from_option && way.edit !== null && (
        <p className="text-xs text-ink-2">as option {way.from_option.toUpperCase()} has it</p>
      )}
    </div>
  );
}
