/** The practice yard: a system like this one with faults in it, read by simulated meters, scored. */
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { Failed } from '@/ui/States';
import { useTried } from '@/ui/useTried';
import { yardQuery } from '../queries';
import { Refused } from './Causes';
import { BigButton, BigChoice, BigField, keyOf, named } from './hand';

type Yard = Schemas['YardView'];
const NOTHING = { value: '', label: '' };

export function PracticeView() {
  const { at, edit } = useJob();
  const { data: yard, error, isPlaceholderData } = useQuery(yardQuery(at));
  const [seed, setSeed] = useState('1');
  const { tried, problem } = useTried('It was not begun.');
  if (error) return <Failed error={error} />;
  const begin = () =>
    tried(async () => {
      const number = Number(seed);
      if (!/^\d{1,9}$/.test(seed.trim())) throw new Error(`Number: “${seed}” is none from 0 on.`);
      await edit({ kind: 'begin-practice', seed: number });
    });
  return (
    <div
      className={`min-h-0 grow overflow-y-auto p-3.5 ${isPlaceholderData ? 'opacity-60' : ''}`}
      aria-busy={isPlaceholderData}
    >
      <form
        className="flex flex-wrap items-end gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          void begin();
        }}
      >
        <BigField label="System number" value={seed} onChange={setSeed} className="w-28" />
        <BigButton type="submit" weight={yard ? 'plain' : 'main'}>
          {yard ? 'Begin another' : 'Begin'}
        </BigButton>
        <p className="min-w-0 grow basis-72 text-xs text-ink-2">
          This house at a clear noon with none, one or two faults in it, planted by the number.
          Every reading costs minutes and risk; a verdict that your readings do not carry counts
          nothing. This practice is no licence to do the work.
        </p>
      </form>
      {problem && (
        <p role="alert" className="text-sm text-stop">
          {problem}
        </p>
      )}
      {yard && (
        <div className="mt-2 flex gap-3 max-lg:flex-col">
          <section aria-label="Readings taken" className="min-w-0 grow basis-1/2">
            <p className="text-sm">
              System {yard.seed}: {yard.moment}
            </p>
            {!yard.debrief && <Take yard={yard} />}
            <Taken yard={yard} />
          </section>
          <section
            aria-label="Verdict and debrief"
            className="min-w-0 grow basis-1/2 rounded-lg border border-rule bg-sheet p-3"
          >
            {yard.debrief ? <Debriefed debrief={yard.debrief} /> : <Verdict yard={yard} />}
            <Refused refused={yard.refused} />
          </section>
        </div>
      )}
    </div>
  );
}

function Take({ yard }: { yard: Yard }) {
  const { act } = useJob();
  const items = [
    ...yard.can_read.map((c) => ({
      value: keyOf(c),
      label: `${named(c)} (${Math.round(c.minutes)} min, risk ${Math.round(c.risk)})`,
    })),
    ...yard.refused.map((r) => ({ value: `unsafe:${r.test}|`, label: r.title })),
  ];
  const [chosen, setChosen] = useState(items[0]?.value ?? '');
  const [reading = '', place = ''] = chosen.split('|');
  return (
    <div className="mt-2 flex flex-wrap items-end gap-2">
      <BigChoice
        label="Take a reading"
        value={chosen}
        items={items}
        onChange={setChosen}
        className="grow basis-60"
      />
      <BigButton weight="main" onClick={() => void act({ kind: 'take-reading', reading, place })}>
        Read
      </BigButton>
    </div>
  );
}

function Taken({ yard }: { yard: Yard }) {
  if (yard.taken.length === 0) return null;
  return (
    <>
      <ol aria-label="Readings" className="mt-2 rounded-lg border border-rule bg-sheet px-3">
        {yard.taken.map((one, n) => (
          <li
            // biome-ignore lint/suspicious/noArrayIndexKey: a reading is named by its turn
            key={n}
            className="border-b border-rule py-1 text-sm last:border-b-0"
          >
            {one.place && `${one.place}: `}
            {one.title} <b className="font-figure">{one.shown}</b>
            {one.unsafe && <span className="block text-stop">{one.unsafe}</span>}
            {yard.debrief && !one.unsafe && (
              <span className="block text-xs text-ink-2">
                A sound system shows {one.due}; it speaks against {one.ruled_out} causes.
              </span>
            )}
          </li>
        ))}
      </ol>
      <p className="mt-1 text-sm text-ink-2">
        {yard.taken.length} readings, {Math.round(yard.minutes)} minutes, risk{' '}
        {Math.round(yard.risk)}
      </p>
    </>
  );
}

function Verdict({ yard }: { yard: Yard }) {
  const { act } = useJob();
  const [first, setFirst] = useState('');
  const [second, setSecond] = useState('');
  const items = yard.verdicts.map((v) => ({ value: v.code, label: v.words }));
  return (
    <div className="space-y-2">
      <h2 className="text-sm font-semibold">Your verdict</h2>
      <BigChoice
        label="What is wrong"
        value={first}
        items={[NOTHING, ...items]}
        onChange={setFirst}
        className="w-full"
      />
      <BigChoice
        label="And, if there are two"
        value={second}
        items={[NOTHING, ...items.filter((i) => i.value !== 'healthy')]}
        onChange={setSecond}
        className="w-full"
      />
      <BigButton
        weight="main"
        disabled={!first}
        onClick={() =>
          void act({ kind: 'give-verdict', verdict: [first, second].filter(Boolean).join('+') })
        }
      >
        Give it
      </BigButton>
    </div>
  );
}

function Debriefed({ debrief }: { debrief: Schemas['Debrief'] }) {
  return (
    <div className="text-sm">
      <p
        role="status"
        className={`rounded-md border px-3 py-2 font-semibold ${debrief.points > 0 && debrief.right ? 'border-patina bg-patina-wash' : 'border-warn bg-warn-wash'}`}
      >
        {debrief.told}
      </p>
      <h3 className="mt-2 font-semibold">Planted</h3>
      <ul>
        {debrief.planted.map((words, n) => (
          <li key={words}>
            {words}
            {debrief.mends[n] && (
              <span className="block text-xs text-ink-2">{debrief.mends[n]}</span>
            )}
          </li>
        ))}
      </ul>
      {debrief.lines.length > 0 && (
        <>
          <h3 className="mt-2 font-semibold">Taken off</h3>
          <ul>
            {debrief.lines.map((l) => (
              <li key={l.words} className="flex justify-between gap-2">
                <span>{l.words}</span>
                <span className="font-figure">{Math.round(l.points)}</span>
              </li>
            ))}
          </ul>
        </>
      )}
      <h3 className="mt-2 font-semibold">An efficient search</h3>
      <ol className="list-decimal pl-5">
        {debrief.par.map((p) => (
          <li key={p.title}>
            {p.title}{' '}
            <span className="text-xs text-ink-2">
              {Math.round(p.minutes)} min, risk {Math.round(p.risk)}
            </span>
          </li>
        ))}
      </ol>
    </div>
  );
}
