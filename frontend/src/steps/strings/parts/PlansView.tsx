/** Every legal way to string the array, ranked, and what each length in series comes to. */
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { NoPlan } from '@/plan/NoPlan';
import { Button } from '@/ui/Button';
import { Choice } from '@/ui/Choice';
import { Mark } from '@/ui/Mark';
import { Failed, Waiting } from '@/ui/States';
import { TypedField } from '@/ui/TypedField';
import { figure } from '@/units/format';
import { formatLength, type LengthUnit } from '@/units/length';
import { askPlan, type Objective, stringPlansQuery } from '../queries';

const OBJECTIVES: { value: Objective; label: string }[] = [
  { value: 'energy', label: 'Energy of a year' },
  { value: 'own-trackers', label: 'Planes on trackers of their own' },
  { value: 'headroom', label: 'Headroom under the voltage limit' },
  { value: 'fewest-strings', label: 'Fewest strings' },
  { value: 'home-runs', label: 'Shortest home runs' },
  { value: 'middle', label: 'Middle of the window' },
  { value: 'all-trackers', label: 'No tracker unused' },
];

export function PlansView() {
  const { at, act, job } = useJob();
  const [first, setFirst] = useState<Objective>('own-trackers');
  const { data, error, isFetching } = useQuery(stringPlansQuery(at, first));
  if (error) return <Failed error={error} />;
  if (!data)
    return (
      <Waiting shows="Each way to string this array within its limits, ranked, and what each length in series comes to.">
        Looking for every legal plan
      </Waiting>
    );
  return (
    <div className="beside min-h-0 grow">
      <section
        aria-label="Legal plans"
        aria-busy={isFetching}
        className="min-w-0 grow basis-0 overflow-y-auto px-4 py-3"
      >
        <div className="mb-2 flex items-center gap-2 text-sm">
          <b>
            {data.total === 1 ? 'One legal plan' : `${figure(data.total)} legal plans`}
            {data.total > data.plans.length && `, the first ${data.plans.length} shown`}
          </b>
          <span className="grow" />
          <span className="text-ink-2">First of all</span>
          <Choice
            label="What counts first"
            value={first}
            items={OBJECTIVES}
            onChange={(id) => setFirst(id as Objective)}
          />
        </div>
        {data.held_up && (
          <p className="mb-2 rounded-md border border-warn bg-warn-wash p-2 text-sm">
            {data.held_up}
          </p>
        )}
        <NoPlan />
        <ol className={isFetching ? 'opacity-60' : ''}>
          {data.plans.map((plan, i) => (
            <PlanRow
              key={`${plan.told} ${plan.woven}`}
              plan={plan}
              unit={job.unit}
              rank={i + 1}
              bestKwh={Math.max(...data.plans.map((p) => p.energy_kwh ?? 0))}
              onUse={() => void act(plan.edit)}
            />
          ))}
        </ol>
        <p className="mt-2 text-xs text-ink-2">
          Ranked by {data.ranked_by}.{' '}
          {first !== 'energy' &&
            'A year is worked out for the first four, by the hour; it does not change the order. '}
          Using a plan locks its strings.
        </p>
      </section>
      <section
        aria-label="Lengths in series"
        className="w-[370px] shrink-0 overflow-y-auto border-l border-rule px-3.5 py-3"
      >
        <AskPlan key={`${at.revision}`} />
        {data.lengths.map(({ module, lengths }) => (
          <div key={module}>
            <h2 className="mt-3 mb-1 text-sm font-semibold">
              How many in series{data.lengths.length > 1 && `: ${module}`}
            </h2>
            <ul className="text-sm">
              {lengths.toReversed().map((length) => (
                <li key={length.modules_in_series} className="flex items-start gap-2 py-0.5">
                  <span className="mt-1 shrink-0">
                    <Mark
                      shape={
                        length.breaks === 'stop' ? 'square' : length.breaks ? 'triangle' : 'circle'
                      }
                    />
                  </span>
                  {length.told}
                </li>
              ))}
            </ul>
          </div>
        ))}
      </section>
    </div>
  );
}

/** A plan in words, and in one sentence whether it is legal. */
function AskPlan() {
  const { at } = useJob();
  const [answer, setAnswer] = useState<Schemas['PlanVerdict'] | null>(null);
  const [asked, setAsked] = useState('');
  return (
    <>
      <h2 className="mb-1 text-sm font-semibold">Ask about a plan</h2>
      <TypedField
        label="Plan in words"
        value={asked}
        placeholder="14 on 1, 2 × 7 on 2"
        width={300}
        align="left"
        commit={async (typed) => {
          setAnswer(typed.trim() ? await askPlan(at, typed) : null);
          setAsked(typed);
        }}
      />
      {answer && (
        <p role="status" className="mt-1 flex items-start gap-2 text-sm">
          <span className="mt-1 shrink-0">
            <Mark shape={answer.legal ? 'circle' : 'square'} />
          </span>
          {answer.told}
        </p>
      )}
    </>
  );
}

interface PlanRowProps {
  unit: LengthUnit;
  plan: Schemas['PlanView'];
  rank: number;
  bestKwh: number;
  onUse: () => void;
}

function PlanRow({ plan, unit, rank, bestKwh, onUse }: PlanRowProps) {
  const { merits } = plan;
  const told = [
    plan.woven,
    merits.strings === 1 ? '1 string' : `${merits.strings} strings`,
    merits.lengths === 1 ? 'all alike' : `${merits.lengths} lengths`,
    merits.tight_strings > 0 ? `${merits.tight_strings} with under 2 % headroom` : 'headroom kept',
    ...(plan.home_run_m === null ? [] : [`home runs ${formatLength(plan.home_run_m, unit)}`]),
    ...(merits.mixed_trackers > 0 ? [`${merits.mixed_trackers} tracker with two planes`] : []),
    ...(merits.unused_trackers > 0 ? [`${merits.unused_trackers} tracker unused`] : []),
  ];
  return (
    <li className="flex items-center gap-3 border-b border-rule py-1.5 text-sm">
      <span className="w-5 shrink-0 text-right font-figure text-ink-2">{rank}</span>
      <div className="min-w-0 grow">
        <p className="font-medium">{plan.told}</p>
        <p className="text-xs text-ink-2">{told.join(', ')}</p>
      </div>
      <span className="w-[120px] shrink-0 text-right font-figure">
        {plan.energy_kwh !== null && (
          <>
            {figure(plan.energy_kwh)} kWh
            {plan.energy_kwh < bestKwh - 0.5 && (
              <span className="block text-xs text-ink-2">
                −{figure(bestKwh - plan.energy_kwh)} kWh
              </span>
            )}
          </>
        )}
      </span>
      {plan.current ? (
        <span className="w-[76px] shrink-0 text-center text-xs text-ink-2">as it is</span>
      ) : (
        <Button className="w-[76px] shrink-0 justify-center" onClick={onUse}>
          Use it
        </Button>
      )}
    </li>
  );
}
