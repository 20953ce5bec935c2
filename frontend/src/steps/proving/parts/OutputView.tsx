/** Made and due: a gateway's log judged by month and day, its signs, its modules beside their siblings. */
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { FileLink } from '@/ui/FileLink';
import { Failed, Waiting } from '@/ui/States';
import { useFileRead } from '@/ui/useFileRead';
import { askGateway, productionFile, productionQuery, sendLog } from '../queries';
import { DayCourse } from './DayCourse';
import { DayRatios } from './DayRatios';
import { BigButton, BigChoice, BigFile, TakeOff } from './hand';
import { ModulesMade } from './ModulesMade';
import { MonthsMade } from './MonthsMade';
import { Signs } from './Signs';

export function OutputView() {
  const { job } = useJob();
  const files = job.proving?.production ?? [];
  const [picked, setPicked] = useState<number | null>(null);
  const number = Math.min(picked ?? files.length - 1, files.length - 1);
  const file = files[number];
  return (
    <div className="min-h-0 grow overflow-y-auto p-3.5 text-sm">
      <LogBar files={files} number={number} onPick={setPicked} />
      {file ? (
        <Log key={file.sha256} number={number} file={file} />
      ) : (
        <p className="mt-3 max-w-prose text-ink-2">
          Choose the CSV of the gateway or the inverter: power or energy by the minute, by the
          quarter hour or by the day, or a counter; with the light in the plane if it was measured,
          and with its modules if they report by themselves. What is wrong with it is put right and
          listed. Nothing has a log yet? A simulated gateway writes one to practise on.
        </p>
      )}
    </div>
  );
}

interface LogBarProps {
  files: readonly Schemas['ProductionFile'][];
  number: number;
  onPick: (number: number) => void;
}

function LogBar({ files, number, onPick }: LogBarProps) {
  const { at, act } = useJob();
  const use = async (file: Schemas['ProductionFile']) => {
    await act({ kind: 'use-production', file });
    onPick(files.length);
  };
  const sent = useFileRead((file: File) => sendLog(at, file), use);
  const asked = useFileRead(() => askGateway(at, files.length), use);
  const problem = sent.problem || asked.problem;
  return (
    <>
      <div className="flex flex-wrap items-end gap-2">
        <BigFile
          label="Gateway’s log, CSV"
          name="Gateway’s log, file"
          accept=".csv,.txt,.tsv"
          onFile={sent.read}
        />
        <BigButton onClick={() => asked.read(new File([], ''))}>
          Ask the simulated gateway
        </BigButton>
        {files.length > 0 && (
          <>
            <BigChoice
              label="Log"
              value={String(number)}
              items={files.map((f, n) => ({ value: String(n), label: `${n + 1} ${f.file}` }))}
              onChange={(value) => onPick(Number(value))}
              className="max-w-64"
            />
            <TakeOff
              label="Take this log off the job"
              onClick={() => void act({ kind: 'drop-production', at: number })}
            />
          </>
        )}
        {(sent.reading || asked.reading) && <span role="status">Reading it</span>}
      </div>
      {problem && (
        <p role="alert" className="mt-1 rounded-sm bg-stop-wash px-1.5 py-1 text-stop">
          {problem} The logs there were stay.
        </p>
      )}
    </>
  );
}

const INK: Record<Schemas['LogStanding'], string> = {
  fine: 'text-ink',
  look: 'text-warn',
  act: 'text-stop',
  'not judged': 'text-ink-2',
};

interface LogProps {
  number: number;
  file: Schemas['ProductionFile'];
}

function Log({ number, file }: LogProps) {
  const { at, act } = useJob();
  const { data: found, error } = useQuery(productionQuery(at, number));
  const [day, setDay] = useState<string | null>(null);
  if (error) return <Failed error={error} />;
  if (!found) return <Waiting shows="Its months and days.">Judging the log</Waiting>;
  const asks = found.signs.some((s) => s.tone === 'act');
  return (
    <>
      <div className="mt-2 flex flex-wrap items-end gap-x-3 gap-y-1">
        <p
          role="status"
          className={`min-w-0 grow basis-80 text-base font-semibold ${asks ? 'text-stop' : INK[found.standing]}`}
        >
          {found.told}.
        </p>
        {found.columns.length > 1 && (
          <BigChoice
            label="Column read"
            value={found.column}
            items={found.columns.map((c) => ({ value: c, label: c }))}
            onChange={(column) => void act({ kind: 'use-production', file: { ...file, column } })}
            className="max-w-56"
          />
        )}
        <FileLink href={productionFile(at, number, 'report.pdf')}>Report (pdf)</FileLink>
        <FileLink href={productionFile(at, number, 'days.csv')}>Days (csv)</FileLink>
      </div>
      {found.doubts.map((doubt) => (
        <p key={doubt} className="text-xs text-warn">
          {doubt}.
        </p>
      ))}
      <Signs found={found} onDay={setDay} />
      <DayRatios found={found} day={day} onDay={setDay} />
      <DayCourse number={number} day={day ?? brightest(found)} />
      <MonthsMade found={found} />
      {found.modules.length > 0 && <ModulesMade modules={found.modules} />}
      <details className="mt-3 border-t border-rule pt-1">
        <summary className="min-h-11 cursor-pointer py-2 font-semibold">
          {found.corrections.length === 0
            ? 'Nothing had to be put right in the file'
            : `Put right in the file: ${found.corrections.length}`}
        </summary>
        <ul className="list-disc pl-5 text-ink-2">
          {found.corrections.map((told) => (
            <li key={told}>{told}.</li>
          ))}
        </ul>
      </details>
    </>
  );
}

/** The day to begin with: the one that made most. */
const brightest = (found: Schemas['ProductionView']) =>
  found.days.reduce((best, d) => (d.made_kwh > best.made_kwh ? d : best)).day;
