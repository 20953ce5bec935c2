/** What to buy: which inverter, how many modules, which way and why; and the whole shelf on this roof. */
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { stopStudy } from '@/api/asking';
import type { Schemas } from '@/api/client';
import { Behind } from '@/plan/Behind';
import { useJob } from '@/plan/JobContext';
import { useStudy } from '@/plan/useStudy';
import { Button } from '@/ui/Button';
import { Card } from '@/ui/Card';
import { Waiting } from '@/ui/States';
import { useSorted } from '@/ui/useSorted';
import { capital, figure, lossShare } from '@/units/format';
import { whatToBuyQuery, whichQuery } from '../queries';

export function BuyView() {
  return (
    <div className="flex min-h-0 grow flex-col gap-3 overflow-y-auto p-3">
      <Answers />
      <Shelf />
    </div>
  );
}

function Answers() {
  const { at } = useJob();
  const { found: answer, behind, running, error } = useStudy(whichQuery(at));
  if (error) return <p className="text-sm text-stop">{error.message}</p>;
  return (
    <section aria-label="The answer" className="shrink-0">
      <div className="mb-1 flex items-center gap-2 text-sm">
        <b>For this array</b>
        {running && !behind && (
          <span role="status" className="text-ink-2">
            {figure((answer?.done_frac ?? 0) * 100)} % worked out
          </span>
        )}
        {running && <Button onClick={() => void stopStudy(at, 'which')}>Stop</Button>}
      </div>
      {!answer && (
        <Waiting shows="Which inverter, how many modules and which way, each with its reasons.">
          Weighing this array
        </Waiting>
      )}
      {answer && (
        <Behind behind={behind}>
          <div className="grid grid-cols-3 gap-2">
            {[answer.inverter, answer.modules, answer.way].map((one) => (
              <AnswerCard key={one.question} answer={one} />
            ))}
          </div>
        </Behind>
      )}
    </section>
  );
}

function AnswerCard({ answer }: { answer: Schemas['Answer'] }) {
  const { act } = useJob();
  const { edit } = answer;
  return (
    <Card title={answer.question} scrolls className="max-h-[262px]">
      <p className="font-semibold">{capital(answer.answer) || '…'}</p>
      {answer.so_far && <p className="text-xs text-ink-2">{answer.so_far}</p>}
      {answer.why.map((sentence) => (
        <p key={sentence} className="mt-1 text-xs">
          {sentence}
        </p>
      ))}
      {edit && (
        <Button className="mt-1.5" onClick={() => void act(edit)}>
          Make it so
        </Button>
      )}
    </Card>
  );
}

type Purchase = Schemas['Purchase'];

const COLUMNS = [
  { id: 'per100', title: 'kWh/100', of: (p: Purchase) => p.kwh_per_100 },
  { id: 'energy', title: 'kWh', of: (p: Purchase) => p.energy_kwh },
  { id: 'cost', title: 'Parts', rising: true, of: (p: Purchase) => p.cents },
  { id: 'years', title: 'Years', rising: true, of: (p: Purchase) => p.years_to_pay },
  { id: 'clipped', title: 'Clipped', rising: true, of: (p: Purchase) => p.clipped_frac },
  { id: 'margin', title: 'Margin', of: (p: Purchase) => p.margin_frac },
] as const;

function Shelf() {
  const { at } = useJob();
  const [asked, setAsked] = useState(false);
  const { data, error } = useQuery({ ...whatToBuyQuery(at), enabled: asked });
  const choice = asked ? data?.found : null;
  const problem = error?.message ?? data?.problem;
  return (
    <section aria-label="Recommendation" className="shrink-0">
      <div className="mb-1 flex flex-wrap items-center gap-2 text-sm">
        <b>Every module, way and inverter of the shelf on this roof</b>
        {!asked && (
          <Button weight="main" onClick={() => setAsked(true)}>
            Look through the shelf
          </Button>
        )}
        {choice && (
          <span role="status" className="text-ink-2">
            {choice.looked_at} of {choice.of} modules, {figure(choice.count)} combinations break no
            Stop, {figure(choice.refused_count)} do or cannot be
          </span>
        )}
        {asked && data?.running && (
          <Button onClick={() => void stopStudy(at, 'what-to-buy')}>Stop</Button>
        )}
      </div>
      {!asked && (
        <p className="text-sm text-ink-2">
          Takes a minute or two; what is found is shown as it comes, and can be stopped.
        </p>
      )}
      {asked && problem && <p className="text-sm text-stop">{problem}</p>}
      {choice && (
        <>
          {choice.told.map((sentence) => (
            <p key={sentence} className="text-sm">
              {sentence}
            </p>
          ))}
          <Combinations choice={choice} />
          <RefusedList choice={choice} />
        </>
      )}
    </section>
  );
}

function Combinations({ choice }: { choice: Schemas['WhatToBuy'] }) {
  const { act } = useJob();
  const { sorted, heads } = useSorted(choice.found, COLUMNS);
  return (
    <>
      <table className="mt-1 w-full text-xs">
        <thead>
          <tr className="text-left text-ink-2">
            <th className="font-normal">Modules, way, inverter</th>
            {heads}
            <th className="w-[64px]">
              <span className="sr-only">Take it</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {sorted.map((p) => (
            <tr key={`${p.edit.told} ${p.way}`} className="border-t border-rule">
              <th scope="row" className="py-1 text-left font-medium">
                {p.modules} × {p.module}, {p.way}, {p.made_of}
                {p.outside.map((told) => (
                  <span key={told} className="block font-normal text-stop">
                    Outside: {told}
                  </span>
                ))}
              </th>
              <td className="pl-3 text-right font-figure whitespace-nowrap">
                {p.kwh_per_100 === null ? '?' : figure(p.kwh_per_100)}
              </td>
              <td className="pl-3 text-right font-figure whitespace-nowrap">
                {figure(p.energy_kwh)}
              </td>
              <td className="pl-3 text-right font-figure whitespace-nowrap">
                {p.cents === null ? '?' : figure(p.cents / 100)}
              </td>
              <td className="pl-3 text-right font-figure whitespace-nowrap">
                {p.years_to_pay === null ? '?' : figure(p.years_to_pay, 1)}
              </td>
              <td className="pl-3 text-right font-figure whitespace-nowrap">
                {lossShare(p.clipped_frac)}
              </td>
              <td className="pl-3 text-right font-figure whitespace-nowrap">
                {figure(p.margin_frac * 100, 1)} %
              </td>
              <td className="text-right">
                {p.now ? (
                  <span className="text-ink-2">as it is</span>
                ) : (
                  <Button aria-label={`Take ${p.edit.told}`} onClick={() => void act(p.edit)}>
                    Take
                  </Button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-1 text-xs text-ink-2">
        {choice.by_cost
          ? 'Ranked by kWh/100: kWh a year for each 100 of modules, inverters and electronics'
          : 'A price is missing: ranked by kWh, then by margin'}
        , what keeps the maker’s, the rebate’s and the grid’s limits first. The best 60 are shown.
        {choice.unknown_prices.length > 0 && ` No price: ${choice.unknown_prices.join(', ')}.`}
        {choice.sample_prices && ' Sample prices are invented.'} Margin: the least under any Stop.
        Optimizers are tried on each module’s two best string inverters.
      </p>
    </>
  );
}

function RefusedList({ choice }: { choice: Schemas['WhatToBuy'] }) {
  if (choice.refused.length === 0) return null;
  return (
    <details className="mt-1 text-xs">
      <summary className="min-h-6 cursor-pointer">Why the others are not there</summary>
      <ul>
        {choice.refused.map((r) => (
          <li key={r.why} className="py-0.5">
            <b className="font-figure">{figure(r.count)}</b> {r.why}{' '}
            <span className="text-ink-2">Such as {r.example}.</span>
          </li>
        ))}
      </ul>
    </details>
  );
}
