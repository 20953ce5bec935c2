/** From sunlight to meter: every step with what it takes; one is opened to how it is worked out. */
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Schemas, YearReport } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { Term } from '@/ui/Term';
import { figure, signed } from '@/units/format';
import { shadeBandQuery } from '../queries';
import { STEP_TITLES, STEP_WORKINGS } from '../stages';

type Stage = Schemas['Stage'];

/** Steps that neither take nor give are folded into one line. */
const moves = (stage: Stage, i: number) => i === 0 || Math.abs(stage.change_kwh) >= 0.5;

/** A title within a sentence: abbreviations keep their capitals. */
const inSentence = (title: string) => title.replace(/^[A-Z](?=[a-z])/, (c) => c.toLowerCase());

export function WaterfallView({ year }: { year: YearReport }) {
  const [open, setOpen] = useState<Stage['step'] | ''>('');
  const whole = year.stages[0]?.after_kwh ?? 1;
  const still = year.stages.filter((s, i) => !moves(s, i));
  return (
    <div className="min-h-[200px] grow overflow-y-auto px-4 py-2">
      <ol aria-label="From sunlight to meter">
        {year.stages.filter(moves).map((stage) => (
          <li key={stage.step}>
            <button
              type="button"
              aria-expanded={open === stage.step}
              onClick={() => setOpen(open === stage.step ? '' : stage.step)}
              className="grid min-h-[25px] w-full grid-cols-[200px_1fr_190px] max-md:grid-cols-[132px_1fr_158px] items-center gap-3 rounded-sm px-1 text-left text-sm hover:bg-sheet"
            >
              <span>
                <Term>{STEP_TITLES[stage.step]}</Term>
              </span>
              <Bar stage={stage} whole={whole} />
              <span className="text-right font-figure">
                {stage.change_kwh === 0 ? (
                  <b>{figure(stage.after_kwh)} kWh</b>
                ) : (
                  <>
                    {signed(stage.change_kwh)} kWh
                    <span className="ml-2 inline-block w-[64px] text-ink-2">
                      {signed(stage.share_frac * 100, 1) || '0.0'} %
                    </span>
                  </>
                )}
              </span>
            </button>
            {open === stage.step && (
              <p className="mb-1 ml-[212px] max-w-[520px] text-xs text-ink-2">
                {STEP_WORKINGS[stage.step]} Leaves {figure(stage.after_kwh)} kWh.
                {stage.step === 'uneven' && <Band energyKwh={year.energy_kwh} />}
              </p>
            )}
          </li>
        ))}
        {year.faults.map((fault) => (
          <li key={fault} className="px-1 text-sm text-stop">
            {fault}.
          </li>
        ))}
        <li className="mt-1 grid grid-cols-[200px_1fr_190px] max-md:grid-cols-[132px_1fr_158px] gap-3 border-t border-ink px-1 pt-1 text-sm font-semibold">
          <span>At the meter</span>
          <span className="text-xs font-normal text-ink-2">
            {still.length > 0 &&
              `Nothing here: ${still.map((s) => inSentence(STEP_TITLES[s.step])).join(', ')}.`}
          </span>
          <span className="text-right font-figure">{figure(year.energy_kwh)} kWh</span>
        </li>
      </ol>
    </div>
  );
}

/** Shade inside a substring: its mean light is taken; the darkest cells would leave less. */
function Band({ energyKwh }: { energyKwh: number }) {
  const { at } = useJob();
  const { data } = useQuery(shadeBandQuery(at));
  if (!data) return <span role="status"> Working out the band</span>;
  return (
    <b className="text-ink">
      {' '}
      Each substring on its mean light; if its darkest cells ruled it,{' '}
      {figure(data.energy_least_kwh)} kWh would reach the meter,{' '}
      {figure(energyKwh - data.energy_least_kwh)} less.
    </b>
  );
}

/** What is left, and the piece a step takes or adds at its end. */
function Bar({ stage, whole }: { stage: Stage; whole: number }) {
  const before = stage.after_kwh - stage.change_kwh;
  const [low, high] = [Math.min(before, stage.after_kwh), Math.max(before, stage.after_kwh)];
  const share = (kwh: number) => `${Math.max(0, (kwh / whole) * 100)}%`;
  const gains = stage.change_kwh > 0;
  return (
    <span className="relative block h-[15px] bg-bar" aria-hidden="true">
      <span className="absolute inset-y-0 left-0 bg-straw-wash" style={{ width: share(low) }} />
      <span
        className={`absolute inset-y-0 ${gains ? 'bg-patina' : ['limit', 'hot', 'export'].includes(stage.step) ? 'bg-stop' : 'bg-obstruction'}`}
        style={{ left: share(low), width: stage.change_kwh === 0 ? 0 : share(high - low) }}
      />
    </span>
  );
}
