/** Options laid over each other for a year, and a design as it was before: curves, months, why. */
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Schemas } from '@/api/client';
import { DayLines } from '@/charts/DayLines';
import { StackedMonths } from '@/charts/StackedMonths';
import { useJob } from '@/plan/JobContext';
import { Board } from '@/ui/Board';
import { Button } from '@/ui/Button';
import { Card } from '@/ui/Card';
import { Choice } from '@/ui/Choice';
import { Fitted } from '@/ui/Fitted';
import { Failed, Waiting } from '@/ui/States';
import { capital, figure, lossShare, money, signed } from '@/units/format';
import { comparedQuery, earlierQuery } from '../queries';
import { STEP_TITLES } from '../stages';

type Year = Schemas['OptionYear'];

/** Each with its own hue and its own dash. */
const LOOKS = [
  { colour: 'var(--color-ink)', dash: '' },
  { colour: 'var(--color-patina)', dash: '8 3' },
  { colour: 'var(--color-copper)', dash: '3 3' },
  { colour: 'var(--color-stop)', dash: '9 3 2 3' },
];
const MOST = LOOKS.length;
const NOW = 'now';

export function ComparedView() {
  const { at, job } = useJob();
  const [others, setOthers] = useState<string[] | null>(null);
  const [earlier, setEarlier] = useState<number | null>(null);
  const [dayNumber, setDayNumber] = useState(0);
  // The option in view, then the others, then as it was: the last is what it is held against.
  const rest = job.options.map((o) => o.id).filter((id) => id !== at.optionId);
  const shown = (others ?? rest).filter((id) => rest.includes(id));
  const picked = [
    ...(earlier === null ? [] : [`${at.optionId}@${earlier}`]),
    at.optionId,
    ...shown,
  ].slice(0, MOST);
  const { data, error, isPlaceholderData } = useQuery(comparedQuery(at, picked));
  const toggle = (id: string) =>
    setOthers(shown.includes(id) ? shown.filter((o) => o !== id) : [...shown, id]);
  return (
    <>
      <div className="flex min-h-10 shrink-0 flex-wrap items-center gap-1.5 px-3.5 pt-1">
        <span className="text-sm font-semibold">
          {earlier === null ? `Option ${at.optionId.toUpperCase()} against` : 'Also'}
        </span>
        {rest.map((id) => (
          <Button
            key={id}
            weight={shown.includes(id) ? 'pressed' : 'plain'}
            aria-pressed={shown.includes(id)}
            onClick={() => toggle(id)}
          >
            Option {id.toUpperCase()}
          </Button>
        ))}
        <Earlier chosen={earlier} onChoose={setEarlier} />
        <span className="grow" />
        {data && (
          <Choice
            label="Day shown"
            value={`${dayNumber}`}
            items={data.day_titles.map((title, i) => ({
              value: `${i}`,
              label: capital(i === 0 ? title : `clear day ${title}`),
            }))}
            onChange={(i) => setDayNumber(Number(i))}
          />
        )}
      </div>
      {error && <Failed error={error} />}
      {data ? (
        <div
          aria-busy={isPlaceholderData}
          className={`flex min-h-0 grow flex-col ${isPlaceholderData ? 'opacity-50' : ''}`}
        >
          <Compared compared={data} dayNumber={dayNumber} />
        </div>
      ) : (
        !error && (
          <Waiting shows="The options laid over each other: months, a clear day, what each loses and why.">
            Working out the years
          </Waiting>
        )
      )}
    </>
  );
}

/** The design before one of the last changes. */
function Earlier({
  chosen,
  onChoose,
}: {
  chosen: number | null;
  onChoose: (revision: number | null) => void;
}) {
  const { at } = useJob();
  const { data } = useQuery(earlierQuery(at));
  if (!data || data.length === 0) return null;
  return (
    <Choice
      label="As it was before"
      value={chosen === null ? NOW : `${chosen}`}
      items={[
        { value: NOW, label: 'As it was before a change' },
        ...data.map((e) => ({ value: `${e.revision}`, label: `before “${e.before}”` })),
      ]}
      className="max-w-[280px]"
      onChange={(value) => onChoose(value === NOW ? null : Number(value))}
    />
  );
}

const nameOf = (year: Year) => (year.earlier ? `${year.title}, as it was` : year.title);

function Compared({
  compared,
  dayNumber,
}: {
  compared: Schemas['OptionsCompared'];
  dayNumber: number;
}) {
  const { years } = compared;
  const known = years.flatMap((year, i) => {
    const look = LOOKS[i];
    return year.energy_kwh === null || !look ? [] : [{ year, look }];
  });
  return (
    <>
      <div className="beside min-h-0 grow gap-4 overflow-y-auto p-3">
        <div className="w-[440px] shrink-0">
          <Fitted mostPx={440}>
            {(widthPx) => (
              <DayLines
                label="Power at the meter on a clear day, by option"
                lines={known.map(({ year, look }) => ({
                  title: nameOf(year),
                  kw: year.days_kw[dayNumber] ?? [],
                  ...look,
                }))}
                widthPx={widthPx}
                heightPx={290}
              />
            )}
          </Fitted>
          {compared.told.map((sentence) => (
            <p key={sentence} className="mt-1 text-sm">
              {sentence}
            </p>
          ))}
        </div>
        <Figures years={years} />
      </div>
      <Board heightPx={248}>
        <Card title="By month, kWh" className="w-[400px] shrink-0">
          <Fitted mostPx={374}>
            {(widthPx) => (
              <StackedMonths
                label="Energy at the meter by month and option"
                stacks={known.map(({ year, look }) => [
                  { title: nameOf(year), colour: look.colour, kwh: year.monthly_kwh },
                ])}
                widthPx={widthPx}
                heightPx={150}
              />
            )}
          </Fitted>
        </Card>
        <Differences years={years} />
      </Board>
    </>
  );
}

const ROWS: { title: string; of: (y: Year) => string }[] = [
  { title: 'kWh a year', of: (y) => (y.energy_kwh === null ? '—' : figure(y.energy_kwh)) },
  {
    title: 'kWh a kW',
    of: (y) => (y.specific_kwh_per_kw === null ? '—' : figure(y.specific_kwh_per_kw)),
  },
  { title: 'Modules', of: (y) => figure(y.modules) },
  { title: 'kW DC on kW AC', of: (y) => `${figure(y.dc_kw, 2)} on ${figure(y.ac_kw, 2)}` },
  {
    title: 'Clipped',
    of: (y) => (y.clipped_frac === null ? '—' : lossShare(y.clipped_frac)),
  },
  {
    title: 'Trackers’ limits, kWh',
    of: (y) => (y.tracker_loss_kwh === null ? '—' : figure(y.tracker_loss_kwh)),
  },
  { title: 'Used at home', of: (y) => (y.own_use_kwh === null ? '—' : figure(y.own_use_kwh)) },
  { title: 'Parts', of: (y) => (y.cents === null ? '?' : money(Math.round(y.cents / 100) * 100)) },
  {
    title: 'Stops, Outside, Costs',
    of: (y) => `${y.stops}, ${y.outside}, ${y.costs}`,
  },
];

function Figures({ years }: { years: readonly Year[] }) {
  return (
    <section aria-label="Figures side by side" className="min-w-0 grow">
      <table className="w-full text-xs">
        <thead>
          <tr className="align-bottom text-right">
            <td />
            {years.map((y, i) => (
              <th key={y.key} className="pb-1 pl-2 font-semibold">
                <span className="block" style={{ color: LOOKS[i]?.colour }}>
                  {nameOf(y)}
                </span>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {ROWS.map(({ title, of }) => (
            <tr key={title} className="border-t border-rule text-right font-figure">
              <th scope="row" className="py-1 text-left font-medium">
                {title}
              </th>
              {years.map((y) => (
                <td key={y.key} className="pl-2">
                  {of(y)}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      {years.map((y) => (
        <p key={y.key} className={`mt-1 text-xs ${y.problem ? 'text-stop' : 'text-ink-2'}`}>
          {nameOf(y)}: {y.made_of}
          {y.problem && `. ${y.problem}`}
          {y.first_broken && <b className="text-stop">. {y.first_broken}</b>}
        </p>
      ))}
    </section>
  );
}

/** What each step to the meter does to the difference; together they are all of it. */
function Differences({ years }: { years: readonly Year[] }) {
  const others = years.filter((y) => y.differences.length > 0);
  const [chosen, setChosen] = useState<string | null>(null);
  const other = others.find((y) => y.key === chosen) ?? others[0];
  const first = years[0];
  if (!other || !first)
    return (
      <Card title="What makes the difference" className="min-w-0 grow">
        <p className="text-sm text-ink-2">
          Choose another option above, or this one as it was before a change.
        </p>
      </Card>
    );
  const steps = other.differences
    .filter((d) => Math.abs(d.kwh) >= 0.5)
    .toSorted((a, b) => Math.abs(b.kwh) - Math.abs(a.kwh));
  const most = Math.max(1, ...steps.map((d) => Math.abs(d.kwh)));
  return (
    <Card
      title="What makes the difference"
      aside={`${other.title.slice(0, 1)} against ${first.earlier ? 'as it was' : first.title.slice(0, 1)}`}
      scrolls
      className="min-w-0 grow"
    >
      {others.length > 1 && (
        <span className="mb-1 flex gap-1.5">
          {others.map((y) => (
            <Button
              key={y.key}
              weight={y === other ? 'pressed' : 'plain'}
              aria-pressed={y === other}
              onClick={() => setChosen(y.key)}
            >
              {y.title.slice(0, 1)}
            </Button>
          ))}
        </span>
      )}
      <ol>
        {steps.map((d) => (
          <li
            key={d.step}
            className="grid grid-cols-[150px_1fr_64px] items-center gap-2 text-xs leading-[21px]"
          >
            <span>{d.step === 'sunlight' ? 'Modules and their facing' : STEP_TITLES[d.step]}</span>
            <span className="relative block h-[11px]" aria-hidden="true">
              <span
                className={`absolute inset-y-0 ${d.kwh > 0 ? 'bg-patina' : 'bg-copper'}`}
                style={{
                  left: d.kwh > 0 ? '50%' : `${50 - (Math.abs(d.kwh) / most) * 50}%`,
                  width: `${(Math.abs(d.kwh) / most) * 50}%`,
                }}
              />
              <span className="absolute inset-y-0 left-1/2 w-px bg-ink" />
            </span>
            <span className="text-right font-figure">{signed(d.kwh) || '0'}</span>
          </li>
        ))}
        <li className="grid grid-cols-[150px_1fr_64px] gap-2 border-t border-ink text-xs font-semibold">
          <span>At the meter</span>
          <span />
          <span className="text-right font-figure">
            {signed((other.energy_kwh ?? 0) - (first.energy_kwh ?? 0)) || '0'}
          </span>
        </li>
      </ol>
    </Card>
  );
}
