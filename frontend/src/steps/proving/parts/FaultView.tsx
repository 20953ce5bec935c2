/** The search for a fault: readings one after the other, what each ruled out, what to read next. */
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { FileLink } from '@/ui/FileLink';
import { Failed, Waiting } from '@/ui/States';
import { useTried } from '@/ui/useTried';
import { huntFile, huntQuery, huntReport, metersShow } from '../queries';
import { CauseList, NextTests, Notes, Refused, VerdictLine } from './Causes';
import { BigButton, BigChoice, BigField, keyOf, named, SKIES, TakeOff } from './hand';

type CanRead = Schemas['CanRead'];

export function FaultView() {
  const { at, job, edit, act } = useJob();
  const { data: hunt, error, isPlaceholderData } = useQuery(huntQuery(at));
  const [chosen, setChosen] = useState('');
  if (error) return <Failed error={error} />;
  if (!hunt)
    return <Waiting shows="Causes by how well they explain what was read.">Looking</Waiting>;
  const log = job.proving?.hunt;
  const set = (field: Schemas['HuntField'], typed: string) =>
    void act({ kind: 'set-hunt-field', field, typed });
  return (
    <div
      className={`min-h-0 grow overflow-y-auto p-3.5 ${isPlaceholderData ? 'opacity-60' : ''}`}
      aria-busy={isPlaceholderData}
    >
      <div className="flex gap-3 max-lg:flex-col">
        <section aria-label="Readings" className="min-w-0 grow basis-1/2 space-y-2">
          <div className="flex flex-wrap items-end gap-2">
            <Said label="Day" value={log?.day ?? ''} placeholder="21 Jun" field="day" set={set} />
            <Said label="Time" value={log?.time ?? ''} placeholder="12:00" field="time" set={set} />
            <BigChoice
              label="Sky"
              value={log?.sky || 'clear'}
              items={SKIES}
              onChange={(value) => set('sky', value)}
            />
            <BigButton onClick={() => void act({ kind: 'new-hunt' })}>New search</BigButton>
            {hunt.trail.length > 0 && (
              <>
                <FileLink href={huntReport(at)}>Report (pdf)</FileLink>
                <FileLink href={huntFile(at)}>Readings (csv)</FileLink>
              </>
            )}
          </div>
          <p className="text-xs text-ink-2">
            {hunt.moment}.{' '}
            {hunt.planes
              .map(
                (name, n) =>
                  `${name}: ${Math.round(hunt.light_w_per_m2[n] ?? 0)} W/m², cells ${Math.round(hunt.cell_degc[n] ?? 0)} °C by the model`,
              )
              .join('; ')}
          </p>
          {hunt.problem && (
            <p role="alert" className="text-sm text-stop">
              {hunt.problem}
            </p>
          )}
          <AddReading
            key={chosen}
            canRead={hunt.can_read}
            chosen={chosen}
            choose={setChosen}
            turn={hunt.trail.length}
            add={async (one, typed, practice) => {
              await edit({
                kind: 'add-reading',
                reading: one.reading,
                place: one.place,
                typed,
                practice,
              });
              setChosen('');
            }}
          />
          <Trail trail={hunt.trail} drop={(n) => void act({ kind: 'drop-reading', at: n })} />
        </section>
        <section
          aria-label="What they point to"
          className="min-w-0 grow basis-1/2 rounded-lg border border-rule bg-sheet p-3"
        >
          {hunt.diagnosis ? (
            <>
              <VerdictLine diagnosis={hunt.diagnosis} />
              <CauseList diagnosis={hunt.diagnosis} />
              <NextTests
                diagnosis={hunt.diagnosis}
                take={(test) => setChosen(keyOf({ reading: test.kind, place: test.place }))}
              />
              <Notes diagnosis={hunt.diagnosis} />
              <Said
                label="What it was, once found"
                value={log?.found ?? ''}
                placeholder="connector of A between 5 and 6"
                field="found"
                set={set}
                className="w-80 max-w-full"
              />
            </>
          ) : (
            <p className="text-sm">
              Read something: the volts of each string at work cost a minute each and no risk. What
              you read is weighed against every cause there is, with the light and heat of the
              moment.
            </p>
          )}
          <Refused refused={hunt.refused} />
        </section>
      </div>
    </div>
  );
}

interface SaidProps {
  label: string;
  value: string;
  placeholder: string;
  field: Schemas['HuntField'];
  set: (field: Schemas['HuntField'], typed: string) => void;
  className?: string;
}

/** What is said of the search, kept once the field is left. */
function Said({ label, value, placeholder, field, set, className = 'w-24' }: SaidProps) {
  const [typed, setTyped] = useState<string | null>(null);
  return (
    <BigField
      label={label}
      value={typed ?? value}
      placeholder={placeholder}
      className={className}
      onChange={setTyped}
      onLeave={() => {
        if (typed !== null && typed !== value) set(field, typed);
        setTyped(null);
      }}
    />
  );
}

interface AddReadingProps {
  canRead: readonly CanRead[];
  chosen: string;
  choose: (key: string) => void;
  turn: number;
  add: (one: CanRead, typed: string, practice: boolean) => Promise<unknown>;
}

function AddReading({ canRead, chosen, choose, turn, add }: AddReadingProps) {
  const { at } = useJob();
  const [typed, setTyped] = useState('');
  const [practice, setPractice] = useState(false);
  const { tried, problem } = useTried('It was not written.');
  const one = canRead.find((c) => keyOf(c) === chosen) ?? canRead[0];
  if (!one) return null;
  return (
    <form
      className="rounded-lg border border-rule bg-sheet p-3"
      onSubmit={(event) => {
        event.preventDefault();
        void tried(() => add(one, typed, practice));
      }}
    >
      <div className="flex flex-wrap items-end gap-2">
        <BigChoice
          label="What you read"
          value={keyOf(one)}
          items={canRead.map((c) => ({ value: keyOf(c), label: named(c) }))}
          onChange={choose}
          className="grow basis-60"
        />
        {one.words.length > 0 ? (
          <BigChoice
            label="It shows"
            value={typed}
            items={[{ value: '', label: '' }, ...one.words.map((w) => ({ value: w, label: w }))]}
            onChange={setTyped}
          />
        ) : (
          <BigField
            label="It shows"
            unit={one.unit}
            value={typed}
            onChange={(text) => {
              setTyped(text);
              setPractice(false);
            }}
          />
        )}
        <BigButton type="submit" weight="main" disabled={!typed.trim()}>
          Write down
        </BigButton>
        <BigButton
          onClick={() =>
            void tried(async () => {
              const [shown] = await metersShow(at, [
                { reading: one.reading, place: one.place, turn },
              ]);
              setTyped(shown?.typed ?? '');
              setPractice(true);
            })
          }
        >
          Simulated meter
        </BigButton>
      </div>
      <p className="mt-1 text-xs text-ink-2">
        {Math.round(one.minutes)} min, risk {Math.round(one.risk)}. {one.how}
      </p>
      {problem && (
        <p role="alert" className="mt-1 text-sm text-stop">
          {problem}
        </p>
      )}
    </form>
  );
}

interface TrailProps {
  trail: readonly Schemas['TrailStep'][];
  drop: (at: number) => void;
}

function Trail({ trail, drop }: TrailProps) {
  if (trail.length === 0) return null;
  return (
    <ol aria-label="Trail" className="rounded-lg border border-rule bg-sheet px-3">
      {trail.map((step, n) => (
        <li
          // biome-ignore lint/suspicious/noArrayIndexKey: a reading is named by its turn
          key={n}
          className="flex items-start gap-2 border-b border-rule py-1 text-sm last:border-b-0"
        >
          <span className="w-5 shrink-0 font-figure text-ink-2">{n + 1}</span>
          <span className="min-w-0 grow">
            {step.place && `${step.place}: `}
            {step.title}{' '}
            <b className="font-figure">
              {step.typed} {step.unit}
            </b>
            {step.practice && <span className="text-xs text-warn"> simulated</span>}
            {step.problem && <span className="block text-xs text-stop">{step.problem}</span>}
            {step.told && <span className="block text-xs text-ink-2">{step.told}</span>}
            {step.ruled_out.length > 0 && (
              <span className="block text-xs text-ink-2">
                Rules out {step.ruled_out.join('; ')}
              </span>
            )}
          </span>
          <TakeOff label={`Take off reading ${n + 1}`} onClick={() => drop(n)} />
        </li>
      ))}
    </ol>
  );
}
