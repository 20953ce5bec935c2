/** Commissioning: the steps in their safe order, what is due beside what was read, and where to stop. */
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { FileLink } from '@/ui/FileLink';
import { FilePick } from '@/ui/FilePick';
import { Failed, Waiting } from '@/ui/States';
import { useFileRead } from '@/ui/useFileRead';
import { useTried } from '@/ui/useTried';
import { figure } from '@/units/format';
import {
  commissioningFile,
  commissioningQuery,
  commissioningReport,
  metersShow,
  readTester,
} from '../queries';
import { BigButton, BigField, TakeOff, today } from './hand';

type Step = Schemas['StepDue'];
type Row = Schemas['RowDue'];
const SAID: Record<Schemas['Outcome'], string> = {
  open: 'not read yet',
  pass: 'passed',
  look: 'look again',
  fail: 'failed',
  unread: 'cannot be read',
};
const INK: Record<Schemas['Outcome'], string> = {
  open: 'text-ink-2',
  pass: 'text-patina',
  look: 'text-warn',
  fail: 'text-stop',
  unread: 'text-warn',
};
const SHAPE: Record<Schemas['Outcome'], string> = {
  open: '○',
  pass: '✓',
  look: '△',
  fail: '■',
  unread: '△',
};
/** What a simulated meter is asked for at a row of a step. */
const METER: Partial<Record<Schemas['ProofStep'], string>> = {
  polarity: 'voc_v',
  voc: 'voc_v',
  isc: 'isc_a',
  insulation: 'insulation_mohm',
  ac: 'ac_v',
};
const clock = () => new Date().toTimeString().slice(0, 5);

export function CommissioningView() {
  const { at, option, edit } = useJob();
  const { data: found, error } = useQuery(commissioningQuery(at));
  const [who, setWho] = useState('');
  const [meter, setMeter] = useState('');
  const taken = useFileRead(
    (file: File) => readTester(at, file),
    async (groups) => {
      for (const { light, back, time, ...rows } of groups)
        await edit({
          kind: 'write-tests',
          ...rows,
          light,
          back,
          time,
          day: today(),
          who,
          meter,
          practice: false,
        });
    },
  );
  if (error) return <Failed error={error} />;
  if (!found) return <Waiting shows="The steps in their order.">Reading the log</Waiting>;
  return (
    <div className="min-h-0 grow overflow-y-auto p-3.5">
      <div className="mb-2 flex flex-wrap items-end gap-2">
        <BigField label="Who reads" value={who} onChange={setWho} className="w-40" />
        <BigField label="Meter and its number" value={meter} onChange={setMeter} className="w-48" />
        <p role="status" className="min-w-0 grow basis-60 text-sm font-semibold">
          {found.told}
        </p>
        {option.strings.length > 0 && (
          <FilePick label="Tester’s file, CSV" accept=".csv,.txt,.tsv" onFile={taken.read} />
        )}
        <FileLink href={commissioningReport(at)}>Report (pdf)</FileLink>
        <FileLink href={commissioningFile(at)}>Readings (csv)</FileLink>
      </div>
      {taken.problem && (
        <p role="alert" className="mb-2 rounded-sm bg-stop-wash px-1.5 py-1 text-sm text-stop">
          {taken.problem} What was written down before stays.
        </p>
      )}
      {option.strings.length === 0 && (
        <p className="text-sm text-ink-2">
          No strings here: behind microinverters each unit reports by itself.
        </p>
      )}
      <ol className="space-y-2">
        {found.steps.map((step, n) => (
          <StepCard key={step.step} step={step} number={n + 1} who={who} meter={meter} />
        ))}
      </ol>
    </div>
  );
}

interface StepCardProps {
  step: Step;
  number: number;
  who: string;
  meter: string;
}

function StepCard({ step, number, who, meter }: StepCardProps) {
  const { at, edit, act } = useJob();
  const [typed, setTyped] = useState<Record<string, string>>({});
  const [light, setLight] = useState('');
  const [back, setBack] = useState('');
  const [practice, setPractice] = useState(false);
  const { tried, problem } = useTried('It was not written.');
  const [open, setOpen] = useState(false);
  const wants = step.step !== 'look';
  const reading = METER[step.step];
  const shown = open || (step.outcome === 'open' && !step.blocked);
  const write = () =>
    tried(async () => {
      const places = step.rows.map((r) => r.place).filter((p) => typed[p]?.trim());
      await edit({
        kind: 'write-tests',
        step: step.step,
        places,
        typed: places.map((p) => typed[p] ?? ''),
        light,
        back,
        time: clock(),
        day: today(),
        who,
        meter,
        practice,
      });
      setTyped({});
      setPractice(false);
    });
  const simulate = () =>
    tried(async () => {
      const strings = step.step !== 'ac';
      const wanted = step.rows.map((r) => ({
        reading: reading ?? '',
        place: strings ? r.place : '',
        turn: number,
      }));
      const also = step.wants_light
        ? [
            { reading: 'light_w_per_m2', place: '', turn: number },
            { reading: 'back_degc', place: '', turn: number },
          ]
        : [];
      const values = await metersShow(at, [...wanted, ...also]);
      setTyped(Object.fromEntries(step.rows.map((r, n) => [r.place, values[n]?.typed ?? ''])));
      if (step.wants_light) {
        setLight(values[step.rows.length]?.typed ?? '');
        setBack(values[step.rows.length + 1]?.typed ?? '');
      }
      setPractice(true);
    });
  return (
    <li className="rounded-lg border border-rule bg-sheet px-3">
      <button
        type="button"
        aria-expanded={shown}
        onClick={() => setOpen(!shown)}
        className="flex min-h-11 w-full flex-wrap items-center gap-2 text-left"
      >
        <span aria-hidden="true" className={`w-5 text-center ${INK[step.outcome]}`}>
          {SHAPE[step.outcome]}
        </span>
        <span className="text-base font-semibold">
          {number}. {step.title}
        </span>
        <span className={`text-sm ${INK[step.outcome]}`}>{SAID[step.outcome]}</span>
        {step.blocked && <span className="text-sm text-warn">{step.blocked}</span>}
      </button>
      {shown && (
        <div className="pb-3">
          <p className="mb-2 text-sm text-ink-2">{step.how}</p>
          {step.wants_light && (
            <div className="mb-2 flex flex-wrap gap-2">
              <BigField label="Light in the plane" unit="W/m²" value={light} onChange={setLight} />
              <BigField label="Back of a module" unit="°C" value={back} onChange={setBack} />
            </div>
          )}
          <ul className="flex flex-wrap gap-x-4 gap-y-2">
            {step.rows.map((row) => (
              <RowCell
                key={row.place}
                row={row}
                value={typed[row.place] ?? ''}
                typed={wants}
                onChange={(text) => {
                  setTyped((now) => ({ ...now, [row.place]: text }));
                  setPractice(false);
                }}
                drop={() => void act({ kind: 'drop-test', at: row.at ?? 0 })}
              />
            ))}
          </ul>
          {wants && (
            <div className="mt-2 flex flex-wrap items-center gap-2">
              <BigButton weight="main" disabled={step.blocked !== ''} onClick={() => void write()}>
                Write down
              </BigButton>
              {reading && (
                <BigButton onClick={() => void simulate()}>Read with a simulated meter</BigButton>
              )}
              {practice && <span className="text-xs text-warn">simulated: marked as practice</span>}
            </div>
          )}
          {problem && (
            <p role="alert" className="mt-1 text-sm text-stop">
              {problem}
            </p>
          )}
        </div>
      )}
    </li>
  );
}

interface RowCellProps {
  row: Row;
  value: string;
  typed: boolean;
  onChange: (text: string) => void;
  drop: () => void;
}

function RowCell({ row, value, typed, onChange, drop }: RowCellProps) {
  const { came_out: out } = row;
  const places = (out.due ?? 0) >= 100 ? 0 : 2;
  return (
    <li className="min-w-40 grow basis-44 border-t border-rule pt-1 text-sm">
      <div className="flex flex-wrap items-end gap-2">
        {typed ? (
          <BigField
            label={row.title}
            unit={row.unit}
            value={value}
            onChange={onChange}
            placeholder={row.typed || (row.unit ? '' : 'yes or no')}
          />
        ) : (
          <span>Ticked under Records, looked at: {row.title}</span>
        )}
        {row.at != null && (
          <TakeOff label={`Take off: ${row.title}, ${row.typed}`} onClick={drop} />
        )}
      </div>
      <p className={INK[out.outcome]}>
        {row.typed && <b className="font-figure">{row.typed} </b>}
        {SAID[out.outcome]}
        {row.practice && <span className="text-warn"> (practice)</span>}
        {out.due != null && (
          <span className="text-ink-2">
            {' '}
            due {figure(out.due, places)}
            {out.band != null && ` ± ${figure(out.band, places)}`} {row.unit}
          </span>
        )}
      </p>
      {out.told && <p className={`text-xs ${INK[out.outcome]}`}>{out.told}</p>}
    </li>
  );
}
