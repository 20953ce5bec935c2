/** How much array this inverter should carry: more and fewer modules, and inverters of other sizes. */
import { useState } from 'react';
import { stopStudy } from '@/api/asking';
import type { Schemas } from '@/api/client';
import { SweepChart, type SweepMark } from '@/charts/SweepChart';
import { Behind } from '@/plan/Behind';
import { useJob } from '@/plan/JobContext';
import { useStudy } from '@/plan/useStudy';
import { WEIGHED } from '@/plan/weighed';
import { KIND } from '@/tally/parts/LimitRow';
import { Board } from '@/ui/Board';
import { Button } from '@/ui/Button';
import { Card } from '@/ui/Card';
import { Choice } from '@/ui/Choice';
import { Failed, Waiting } from '@/ui/States';
import { useSize } from '@/ui/useSize';
import { figure, lossShare, signed } from '@/units/format';
import { sweepQuery } from '../queries';

type Point = Schemas['SweepPoint'];

const isStopped = (p: Point) => p.energy_kwh === null || p.broken.some((b) => b.kind === 'stop');

const LEAST_CHART = { widthPx: 360, heightPx: 190 };

export function SweepView() {
  const { at } = useJob();
  const [by, setBy] = useState('year');
  const [mode, setMode] = useState<'modules' | 'size'>('modules');
  const [chosen, setChosen] = useState<number | null>(null);
  const { found: sweep, behind, running, error } = useStudy(sweepQuery(at, by));
  const [size, measure] = useSize();
  if (error) return <Failed error={error} />;
  if (!sweep)
    return (
      <Waiting shows="Energy and clipping with more and fewer modules, the walls that stop them, and other inverter sizes.">
        Working out the sizes
      </Waiting>
    );
  const points = mode === 'modules' ? sweep.by_modules : sweep.by_size;
  const point = points[chosen ?? points.findIndex((p) => p.now)];
  const show = (next: 'modules' | 'size') => {
    setMode(next);
    setChosen(null);
  };
  return (
    <Behind behind={behind}>
      <div className="flex min-h-10 shrink-0 flex-wrap items-center gap-y-1 py-1 gap-1.5 px-3.5 pt-1">
        <Button
          weight={mode === 'modules' ? 'pressed' : 'plain'}
          aria-pressed={mode === 'modules'}
          onClick={() => show('modules')}
        >
          Other counts of modules
        </Button>
        <Button
          weight={mode === 'size' ? 'pressed' : 'plain'}
          aria-pressed={mode === 'size'}
          onClick={() => show('size')}
        >
          Other inverter sizes
        </Button>
        <span className="grow" />
        {running && !behind && (
          <>
            <span role="status" className="text-sm text-ink-2">
              {figure(sweep.done_frac * 100)} % worked out
            </span>
            <Button onClick={() => void stopStudy(at, 'loading-sweep')}>Stop</Button>
          </>
        )}
        <Choice
          label="Weighed by"
          value={by}
          items={WEIGHED.map(({ value, words }, i) => ({
            value,
            label: i === 0 ? `Weighed by ${words}` : `by ${words}`,
          }))}
          onChange={setBy}
        />
      </div>
      <div ref={measure} className="min-h-[200px] grow overflow-hidden px-3">
        <SweepChart
          dots={points.map((p) => ({
            ratio: p.ratio,
            energyKwh: p.energy_kwh,
            withBatteryKwh: p.with_battery_kwh,
            clippedFrac: p.clipped_frac,
            stopped: isStopped(p),
            now: p.now,
          }))}
          marks={marksOf(points, mode === 'modules' ? sweep : null)}
          chosen={chosen}
          onChoose={setChosen}
          name={(i) => nameOf(points[i])}
          widthPx={Math.max(LEAST_CHART.widthPx, (size?.widthPx ?? 852) - 24)}
          heightPx={Math.max(LEAST_CHART.heightPx, (size?.heightPx ?? 424) - 4)}
        />
      </div>
      <Board heightPx={250}>
        {point && <PointCard point={point} />}
        <Card title="Which, and why" scrolls className="w-[262px] shrink-0">
          {sweep.told.length === 0 ? (
            <p className="text-sm text-ink-2">Told when all sizes are worked out.</p>
          ) : (
            sweep.told.map((sentence) => (
              <p key={sentence} className="mb-1 text-sm">
                {sentence}
              </p>
            ))
          )}
          <Kept sweep={sweep} />
        </Card>
        <Schools schools={sweep.schools} />
      </Board>
    </Behind>
  );
}

function nameOf(point: Point | undefined): string {
  if (!point) return '';
  const energy = point.energy_kwh === null ? 'not legal' : `${figure(point.energy_kwh)} kWh`;
  return `${point.modules} modules on ${figure(point.ac_kw, 2)} kW, DC:AC ${figure(point.ratio, 2)}: ${energy}`;
}

/** Where a Stop stands, where other limits begin to be broken, and the sweet spots. */
function marksOf(points: readonly Point[], sweep: Schemas['SweepReport'] | null): SweepMark[] {
  const marks: SweepMark[] = [];
  const rising = points.some((p, i) => i > 0 && p.modules > (points[i - 1]?.modules ?? 0));
  const inOrder = rising ? points : points.toReversed();
  const wall = inOrder.find(isStopped);
  if (wall) {
    const why = wall.energy_kwh === null ? 'no legal plan' : wall.broken[0]?.told.split(',')[0];
    marks.push({
      ratio: wall.ratio,
      text: `Stop: ${why ?? ''}`,
      tone: rising ? 'wall' : 'wall-below',
    });
  }
  const seen = new Set<string>();
  for (const p of inOrder) {
    for (const b of [...p.broken, ...p.noted]) {
      if (b.kind === 'stop' || seen.has(b.rule_id)) continue;
      seen.add(b.rule_id);
      const kind = KIND[b.kind];
      const text = `${kind}: ${b.told.split(',')[0] ?? ''}`;
      // What is so from the first size on is told of each, not drawn as a line.
      if (p !== inOrder[0]) marks.push({ ratio: p.ratio, text, tone: 'line' });
    }
  }
  const sweet = sweep?.sweet === null || !sweep ? undefined : points[sweep.sweet ?? -1];
  if (sweet) marks.push({ ratio: sweet.ratio, text: 'optimum by energy', tone: 'sweet' });
  const money = sweep?.sweet_money === null || !sweep ? undefined : points[sweep.sweet_money ?? -1];
  if (money && money !== sweet)
    marks.push({ ratio: money.ratio, text: 'optimum by cost', tone: 'sweet' });
  return marks.slice(0, 7);
}

function PointCard({ point }: { point: Point }) {
  const { act } = useJob();
  const { edit } = point;
  return (
    <Card
      title={`${point.modules} modules on ${figure(point.ac_kw, 2)} kW`}
      aside={point.now ? 'as it is' : ''}
      scrolls
      className="w-[196px] shrink-0"
    >
      <p className="font-figure text-lg font-semibold">
        {point.energy_kwh === null ? 'no legal plan' : `${figure(point.energy_kwh)} kWh`}
      </p>
      <p className="text-sm">
        {figure(point.dc_kw, 2)} kW DC, DC:AC {figure(point.ratio, 2)}
        {point.clipped_frac !== null && `, clips ${lossShare(point.clipped_frac)}`}
      </p>
      {point.next_kwh !== null && (
        <p className="text-sm">
          The last module gives <b className="font-figure">{signed(point.next_kwh) || '0'} kWh</b> a
          year.
        </p>
      )}
      {point.own_use_kwh !== null && (
        <p className="text-xs">
          The house takes {figure(point.own_use_kwh)} kWh at once
          {(point.held_kwh ?? 0) >= 0.5 &&
            `; ${figure(point.held_kwh ?? 0)} kWh held back at export`}
          {point.with_battery_kwh !== null &&
            `; with the battery ${figure(point.with_battery_kwh)} kWh in all`}
          .
        </p>
      )}
      {point.problem && <p className="text-xs text-stop">{point.problem}</p>}
      {point.broken.map((b) => (
        <p key={b.told} className={`text-xs ${b.kind === 'costs' ? 'text-warn' : 'text-stop'}`}>
          {b.told}
        </p>
      ))}
      {point.noted.map((b) => (
        <p key={b.told} className="text-xs text-ink-2">
          {b.told}
        </p>
      ))}
      {edit && point.energy_kwh !== null && (
        <Button className="mt-1" onClick={() => void act(edit)}>
          Make it {point.modules} modules
        </Button>
      )}
    </Card>
  );
}

/** What fits under every cap, in one action. */
function Kept({ sweep }: { sweep: Schemas['SweepReport'] }) {
  const { act } = useJob();
  const point = sweep.largest_kept === null ? undefined : sweep.by_modules[sweep.largest_kept];
  const edit = point?.edit;
  if (sweep.told.length === 0 || !point || !edit) return null;
  return (
    <Button className="mt-1" onClick={() => void act(edit)}>
      What fits under every cap: {point.modules}
    </Button>
  );
}

function Schools({ schools }: { schools: readonly Schemas['SchoolView'][] }) {
  return (
    <Card title="Sizing rules compared" scrolls className="min-w-0 grow">
      <table className="w-full max-md:min-w-[600px] text-xs">
        <thead>
          <tr className="text-left text-ink-2">
            <th className="font-normal">DC:AC</th>
            <th className="text-right font-normal">kW</th>
            <th className="text-right font-normal">kWh</th>
            <th className="pl-2 text-right font-normal">clipped</th>
            <th className="pl-3 font-normal">why it exists</th>
          </tr>
        </thead>
        <tbody>
          {schools.map((s) => (
            <tr key={s.ratio} className="border-t border-rule align-top">
              <th scope="row" className="py-0.5 text-left font-figure">
                {figure(s.ratio, 2)}
              </th>
              <td className="pl-2 text-right font-figure">{figure(s.ac_kw, 1)}</td>
              <td className="pl-2 text-right font-figure whitespace-nowrap">
                {figure(s.energy_kwh)}
              </td>
              <td className="pl-2 text-right font-figure whitespace-nowrap">
                {lossShare(s.clipped_frac)}
              </td>
              <td className="pl-3">{s.why}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Card>
  );
}
