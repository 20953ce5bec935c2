/** A moment: what everything should read now, two arrays over the day, and is what was read normal. */
import { useQuery } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import type { Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { Fitted } from '@/ui/Fitted';
import { Waiting } from '@/ui/States';
import { useRested } from '@/ui/useRested';
import { figure } from '@/units/format';
import { type MomentAsked, momentQuery } from '../queries';
import { CauseList, NextTests, Notes } from './Causes';
import { BigChoice, BigField, SKIES } from './hand';
import { RatioDay } from './RatioDay';

type View = Schemas['MomentView'];
type Due = Schemas['DueNow'];
type Kind = Schemas['Kind'];
const LOOK: Record<Schemas['Normal'], string> = {
  'not-asked': 'border-rule bg-sheet',
  normal: 'border-patina bg-patina-wash',
  doubtful: 'border-warn bg-warn-wash',
  odd: 'border-stop bg-stop-wash',
};
const TONE = { 'not-asked': 'plain', normal: 'good', doubtful: 'warn', odd: 'stop' } as const;

type Typed = Record<string, string>;
const keyOf = (kind: Kind, at: number) => `${kind} ${at}`;

export function MomentStepView() {
  const { at } = useJob();
  const [asked, setAsked] = useState<Omit<MomentAsked, 'readings'>>({
    day: '21 Jun',
    time: '12:00',
    sky: 'clear',
    measured: '',
    measured_on: 0,
    air: '',
    cell: '',
  });
  const [typed, setTyped] = useState<Typed>({});
  const readings = Object.entries(typed)
    .filter(([, text]) => text.trim())
    .map(([key, text]) => {
      const [kind, place] = key.split(' ');
      return { kind: kind as Kind, at: Number(place), typed: text };
    });
  // As text, so that only another question is another one.
  const body = useRested(JSON.stringify({ ...asked, readings }));
  const { data, error, isFetching } = useQuery(momentQuery(at, JSON.parse(body) as MomentAsked));
  // What was refused is put right in the same fields: the answer before stays.
  const before = useRef(data);
  if (data) before.current = data;
  const view = data ?? before.current;
  const set = (field: keyof typeof asked) => (text: string) =>
    setAsked((now) => ({ ...now, [field]: field === 'measured_on' ? Number(text) : text }));
  const type = (kind: Kind, place: number) => (text: string) =>
    setTyped((now) => ({ ...now, [keyOf(kind, place)]: text }));
  return (
    <div className="min-h-0 grow overflow-y-auto p-3.5" aria-busy={isFetching}>
      <div className="flex flex-wrap items-end gap-2">
        <BigField label="Day" value={asked.day ?? ''} onChange={set('day')} />
        <BigField label="Time" value={asked.time ?? ''} onChange={set('time')} className="w-20" />
        <BigChoice label="Sky" value={asked.sky ?? 'clear'} items={SKIES} onChange={set('sky')} />
        <BigField
          label="Light"
          unit="W/m²"
          value={asked.measured ?? ''}
          onChange={set('measured')}
          placeholder="model"
        />
        {view && view.arrays.length > 1 && (
          <BigChoice
            label="measured on"
            value={String(asked.measured_on)}
            items={view.arrays.map((a, n) => ({ value: String(n), label: a.name }))}
            onChange={set('measured_on')}
          />
        )}
        <BigField
          label="Cells"
          unit="°C"
          value={asked.cell ?? ''}
          onChange={set('cell')}
          placeholder="model"
        />
        <BigField
          label="Air"
          unit="°C"
          value={asked.air ?? ''}
          onChange={set('air')}
          placeholder="model"
        />
        <p className="min-w-0 grow basis-60 text-sm" role="status">
          {view?.told}
          <span className="block text-xs text-ink-2">
            The clock is standard time: in daylight time take an hour off.
          </span>
        </p>
      </div>
      {error && (
        <p role="alert" className="mt-2 rounded-md border border-stop bg-stop-wash p-2 text-sm">
          {error.message}
        </p>
      )}
      {!view && !error && (
        <Waiting shows="What each string and array should read now.">Lighting the modules</Waiting>
      )}
      {view && <Found view={view} typed={typed} type={type} />}
    </div>
  );
}

interface FoundProps {
  view: View;
  typed: Typed;
  type: (kind: Kind, at: number) => (text: string) => void;
}

function Found({ view, typed, type }: FoundProps) {
  return (
    <>
      <p
        role="status"
        aria-label="Verdict"
        className={`mt-2 rounded-md border px-3 py-2 text-sm font-semibold ${LOOK[view.verdict]}`}
      >
        {view.verdict_told ||
          'Type what you read beside what is due: it is weighed as you type. Nothing is stored.'}
        {view.held_told && <span className="block font-normal">{view.held_told}</span>}
      </p>
      <div className="mt-2 flex gap-3 max-lg:flex-col">
        <div className="min-w-0 grow basis-3/5 space-y-3">
          <Arrays view={view} typed={typed} type={type} />
          <Strings view={view} typed={typed} type={type} />
        </div>
        <div className="min-w-0 grow basis-2/5 space-y-3">
          <Pairs view={view} />
          {view.diagnosis && (
            <section className="rounded-lg border border-rule bg-sheet p-3">
              <h2 className="text-sm font-semibold">What may be behind it</h2>
              <CauseList diagnosis={view.diagnosis} />
              <NextTests diagnosis={view.diagnosis} />
              <Notes diagnosis={view.diagnosis} />
            </section>
          )}
          <ul className="list-disc pl-4 text-xs text-ink-2">
            {view.caveats.map((told) => (
              <li key={told}>{told}</li>
            ))}
          </ul>
        </div>
      </div>
    </>
  );
}

function DueCell({ due, value, onChange, label }: DueCellProps) {
  const places = due.due >= 100 ? 0 : due.due >= 20 ? 1 : 2;
  return (
    <td className="py-1 pr-2 align-top">
      <span className="block font-figure whitespace-nowrap">
        {figure(due.due, places)}{' '}
        <span className="text-xs text-ink-2">
          ± {figure(due.band, places)} {due.unit}
        </span>
      </span>
      <BigField
        quiet
        label={`${label}: ${due.title}, read`}
        value={value}
        onChange={onChange}
        placeholder="read"
        tone={TONE[due.normal]}
        className="w-20"
      />
    </td>
  );
}

interface DueCellProps {
  due: Due;
  value: string;
  onChange: (text: string) => void;
  label: string;
}

function Arrays({ view, typed, type }: FoundProps) {
  return (
    <div className="relative overflow-x-auto rounded-lg border border-rule bg-sheet p-3">
      <table className="w-full text-sm">
        <caption className="text-left font-semibold">Arrays now</caption>
        <thead>
          <tr className="text-left text-xs text-ink-2">
            {[
              'array',
              'light',
              'sun off square',
              'reaches the cells',
              'cells',
              'DC power, due',
            ].map((head) => (
              <th key={head} scope="col" className="font-normal">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {view.arrays.map((a, n) => (
            <tr key={a.name} className="border-t border-rule">
              <th scope="row" className="pr-2 text-left align-top font-semibold">
                {a.name}
                <span className="block text-xs font-normal text-ink-2">
                  {a.modules} modules, {figure(a.rated_w / 1000, 2)} kW
                </span>
              </th>
              <td className="pr-3 align-top font-figure whitespace-nowrap">
                {figure(a.light_w_per_m2)} W/m²
              </td>
              <td className="pr-3 align-top font-figure whitespace-nowrap">
                {figure(a.off_square_deg)}°
              </td>
              <td className="pr-3 align-top font-figure whitespace-nowrap">
                {figure(a.reaches_frac * 100)} %
                {a.shade_frac > 0.005 && (
                  <span className="block text-xs text-warn">
                    shade {figure(a.shade_frac * 100)} %
                  </span>
                )}
              </td>
              <td className="pr-3 align-top font-figure whitespace-nowrap">
                {figure(a.cell_degc)} °C
              </td>
              <DueCell
                due={a.power}
                label={a.name}
                value={typed[keyOf('array_power_w', n)] ?? ''}
                onChange={type('array_power_w', n)}
              />
            </tr>
          ))}
          <tr className="border-t border-rule">
            <th scope="row" className="text-left align-top font-semibold">
              AC, all
            </th>
            <td colSpan={4} />
            <DueCell
              due={view.ac}
              label="AC, all"
              value={typed[keyOf('ac_w', 0)] ?? ''}
              onChange={type('ac_w', 0)}
            />
          </tr>
        </tbody>
      </table>
    </div>
  );
}

function Strings({ view, typed, type }: FoundProps) {
  const [first] = view.strings;
  if (!first) return null;
  return (
    <div className="relative overflow-x-auto rounded-lg border border-rule bg-sheet p-3">
      <table className="w-full text-sm">
        <caption className="text-left font-semibold">Strings now</caption>
        <thead>
          <tr className="text-left text-xs text-ink-2">
            <th scope="col" className="font-normal">
              string
            </th>
            {first.readings.map((r) => (
              <th key={r.kind} scope="col" className="font-normal">
                {r.title}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {view.strings.map((s, n) => (
            <tr key={s.name} className="border-t border-rule">
              <th scope="row" className="pr-2 text-left align-top font-semibold">
                {s.name}
                <span className="block text-xs font-normal text-ink-2">
                  {s.modules} on {s.on}, input {s.tracker}
                </span>
                {s.told && (
                  <span className="block max-w-44 text-xs font-normal text-ink-2">{s.told}</span>
                )}
              </th>
              {s.readings.map((r) => (
                <DueCell
                  key={r.kind}
                  due={r}
                  label={`String ${s.name}`}
                  value={typed[keyOf(r.kind, n)] ?? ''}
                  onChange={type(r.kind, n)}
                />
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function Pairs({ view }: { view: View }) {
  const [chosen, setChosen] = useState(0);
  const read = view.pairs.findIndex((p) => p.read != null);
  const pair = view.pairs[chosen] ?? view.pairs[0];
  if (!pair) return null;
  const shown = pair.read == null && read >= 0 ? (view.pairs[read] ?? pair) : pair;
  return (
    <section
      aria-label="Two arrays compared"
      className="rounded-lg border border-rule bg-sheet p-3 text-sm"
    >
      {view.pairs.length > 1 ? (
        <BigChoice
          label="Two arrays, watt for watt"
          value={String(view.pairs.indexOf(shown))}
          items={view.pairs.map((p, n) => ({ value: String(n), label: p.title }))}
          onChange={(value) => setChosen(Number(value))}
        />
      ) : (
        <h2 className="font-semibold">{shown.title}, watt for watt</h2>
      )}
      <Fitted mostPx={520}>
        {(widthPx) => (
          <RatioDay pair={shown} minutes={view.minutes} now={view.minute} widthPx={widthPx} />
        )}
      </Fitted>
      <p className={`rounded-md border px-2 py-1 ${LOOK[shown.normal]}`}>{shown.told}</p>
    </section>
  );
}
