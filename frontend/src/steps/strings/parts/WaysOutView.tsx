/** Ways out of what is broken or costs much: each with what it gains, costs and breaks. */
import { useQuery } from '@tanstack/react-query';
import { stopStudy } from '@/api/asking';
import type { Schemas } from '@/api/client';
import { CurrentDay } from '@/charts/CurrentDay';
import { LineKey } from '@/charts/LineKey';
import { threadOf } from '@/drawing/threads';
import { useJob } from '@/plan/JobContext';
import { NoPlan } from '@/plan/NoPlan';
import { useStudy } from '@/plan/useStudy';
import { Button } from '@/ui/Button';
import { Mark } from '@/ui/Mark';
import { dayName, figure, money, signed } from '@/units/format';
import { remediesQuery, sharedTrackersQuery } from '../queries';
import { Study } from './Study';

type Remedy = Schemas['Remedy'];

const KINDS: Record<Schemas['RemedyKind'], string> = {
  split: 'Split to another tracker',
  'other-length': 'Other lengths',
  'in-series': 'In series',
  'add-on-optimizers': 'Optimizers on a few',
  'system-optimizers': 'Optimizers on all',
  microinverters: 'Microinverters',
  'another-inverter': 'Another inverter',
  'second-inverter': 'A second inverter',
  'fewer-modules': 'Fewer modules',
  'strings-alone': 'Strings alone',
};

const FORBIDDEN = ['stop', 'outside'];

export function WaysOutView() {
  const { at } = useJob();
  return (
    <div className="flex min-h-0 grow flex-col">
      <div className="px-3.5">
        <NoPlan />
      </div>
      <Study
        study={useStudy(remediesQuery(at))}
        waiting="Working out the year as it is"
        coming="Each way out of what is broken, with the kWh it costs or gains; one press takes it."
      >
        {(report, running) => <WaysOut report={report} running={running} />}
      </Study>
    </div>
  );
}

function WaysOut({ report, running }: { report: Schemas['RemediesReport']; running: boolean }) {
  const { at, act } = useJob();
  return (
    <div className="beside min-h-0 grow">
      <section
        aria-label="What is wrong"
        className="w-[304px] shrink-0 overflow-y-auto border-r border-rule px-3.5 py-3"
      >
        <h2 className="mb-1 text-sm font-semibold">
          {report.troubles.length > 0 ? 'What asks for a way out' : 'Nothing asks for a way out'}
        </h2>
        <ul className="text-sm">
          {report.troubles.map((t) => (
            <li key={t.told} className="flex items-start gap-2 py-0.5">
              <span className="mt-1 shrink-0">
                <Mark shape={FORBIDDEN.includes(t.kind) ? 'square' : 'triangle'} />
              </span>
              {t.told}
            </li>
          ))}
        </ul>
        <p className="mt-2 text-sm">
          As it is:{' '}
          {report.energy_kwh === null ? (
            'no year; '
          ) : (
            <>
              <b className="font-figure">{figure(report.energy_kwh)} kWh</b> a year, by the hour.{' '}
            </>
          )}
          Cold Voc {report.cold || 'not checked'}.
        </p>
        <SharedTrackers />
        <p className="mt-3 text-xs text-ink-2">
          On a roof that stands: daylight keeps DC live. AC off first, then DC, prove no current
          with a clamp before any connector is opened; local code and a licensed person decide.
        </p>
      </section>
      <section aria-label="Fixes" className="min-w-0 grow overflow-y-auto px-4 py-3">
        <div className="mb-1 flex h-7 items-center gap-2 text-sm">
          <b className="whitespace-nowrap">
            {report.remedies.length === 1 ? 'One way' : `${report.remedies.length} ways`}
          </b>
          {running ? (
            <>
              <span role="status" className="text-ink-2">
                {report.of > 0
                  ? `${report.looked_at} of ${report.of} years worked out`
                  : 'judging what the shelf has'}
              </span>
              <Button onClick={() => void stopStudy(at, 'remedies')}>Stop</Button>
            </>
          ) : (
            <span className="text-ink-2">what breaks no limit comes first, then by energy</span>
          )}
        </div>
        <ol>
          {report.remedies.map((remedy, i) => (
            <RemedyRow
              key={`${remedy.kind} ${remedy.title}`}
              remedy={remedy}
              best={report.best === i}
              cheapest={report.cheapest === i}
              running={running}
              onTake={() => void act(remedy.edit)}
            />
          ))}
        </ol>
        <p className="mt-2 text-xs text-ink-2">
          Cost is that of modules, inverters and electronics alone, without mounting, cable and work
          {report.sample_prices && '; prices are invented samples'}. Each is taken in one go and
          undone in one.
        </p>
      </section>
    </div>
  );
}

/** Trackers more than one string shares, on their hardest day. */
function SharedTrackers() {
  const { at, option } = useJob();
  const { data } = useQuery(sharedTrackersQuery(at));
  const place = (tag: string) => option.strings.findIndex((s) => s.tag === tag);
  return (data ?? []).map((tracker) => (
    <figure key={tracker.number} className="mt-3">
      <figcaption className="text-sm">
        <b>Tracker {tracker.number}</b>, {dayName(tracker.day_of_year)}:{' '}
        {tracker.over_hours > 0
          ? `over ${figure(tracker.limit_a)} A for ${figure(tracker.over_hours)} h of the year, ${figure(tracker.most_a, 1)} A at most`
          : `never over ${figure(tracker.limit_a)} A, ${figure(tracker.most_a, 1)} A at most`}
      </figcaption>
      <CurrentDay
        together={tracker.together_a}
        limitA={tracker.limit_a}
        strings={tracker.strings.map((s) => ({
          tag: s.tag,
          amps: s.amps,
          ...threadOf(place(s.tag)),
        }))}
        widthPx={276}
        heightPx={168}
      />
      <LineKey
        lines={[
          ...tracker.strings.map((s) => ({
            title: `${s.tag} ${s.planes}`,
            ...threadOf(place(s.tag)),
          })),
          { title: 'together', colour: 'var(--color-ink)', dash: '' },
        ]}
      />
    </figure>
  ));
}

interface RemedyRowProps {
  remedy: Remedy;
  best: boolean;
  cheapest: boolean;
  running: boolean;
  onTake: () => void;
}

function RemedyRow({ remedy, best, cheapest, running, onTake }: RemedyRowProps) {
  const broken = [...remedy.breaks, ...remedy.left];
  const refused = broken.some((b) => FORBIDDEN.includes(b.kind));
  const stopped = broken.some((b) => b.kind === 'stop');
  return (
    <li className="flex items-start gap-3 border-b border-rule py-2 text-sm">
      <span className="mt-1 shrink-0">
        <Mark shape={refused ? 'square' : broken.length > 0 ? 'triangle' : 'circle'} />
      </span>
      <div className="min-w-0 grow">
        <p>
          <b>{KINDS[remedy.kind]}</b>
          {best && <Badge text="most energy" />}
          {cheapest && <Badge text="least cost" />}
        </p>
        <p>{remedy.title}</p>
        {remedy.plan && <p className="text-xs">{remedy.plan}</p>}
        {remedy.parts && <p className="text-xs text-ink-2">{remedy.parts}</p>}
        <p className="text-xs text-ink-2">
          {remedy.mends.length > 0 && `Mends ${remedy.mends.join('; ')}. `}
          Cold Voc {remedy.cold || 'not checked'}.
          {remedy.over_hours > 0 &&
            ` Over a tracker’s current for ${figure(remedy.over_hours)} h of the year.`}
        </p>
        {broken.length > 0 && (
          <ul className="text-xs">
            {remedy.breaks.map((b) => (
              <li key={b.told} className={FORBIDDEN.includes(b.kind) ? 'text-stop' : 'text-warn'}>
                Breaks {b.told}
              </li>
            ))}
            {remedy.left.map((b) => (
              <li key={b.told} className={FORBIDDEN.includes(b.kind) ? 'text-stop' : 'text-warn'}>
                Leaves {b.told}
              </li>
            ))}
          </ul>
        )}
        {remedy.problem && <p className="text-xs text-stop">{remedy.problem}</p>}
      </div>
      <div className="w-[104px] shrink-0 text-right font-figure">
        {remedy.year_to_come && (
          <p className="text-xs text-ink-2">
            {running ? 'year to come' : 'stopped before its year'}
          </p>
        )}
        {remedy.energy_kwh !== null && <p>{figure(remedy.energy_kwh)} kWh</p>}
        {remedy.gain_kwh !== null && (
          <p className={remedy.gain_kwh < 0 ? 'text-stop' : 'font-semibold text-patina-dark'}>
            {signed(remedy.gain_kwh) || '±0'} kWh
          </p>
        )}
        <p className="text-xs text-ink-2">
          {remedy.extra_cents === null
            ? 'price not known'
            : remedy.extra_cents === 0
              ? 'no parts'
              : `${remedy.extra_cents > 0 ? '+' : '−'}${money(Math.abs(remedy.extra_cents))}`}
        </p>
      </div>
      {stopped ? (
        <span className="w-[74px] shrink-0 text-center text-xs text-ink-2">a Stop, not taken</span>
      ) : (
        <Button
          className="w-[74px] shrink-0 justify-center"
          aria-label={`Take it: ${remedy.title}`}
          onClick={onTake}
        >
          Take it
        </Button>
      )}
    </li>
  );
}

function Badge({ text }: { text: string }) {
  return (
    <span className="ml-2 rounded-sm bg-patina-wash px-1.5 py-0.5 text-xs font-medium">{text}</span>
  );
}
