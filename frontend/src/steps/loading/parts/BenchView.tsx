/** The measured-curve bench: one module's day, made into an array and laid over the model. */
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Schemas } from '@/api/client';
import { DayLines } from '@/charts/DayLines';
import { useJob } from '@/plan/JobContext';
import { Board } from '@/ui/Board';
import { Button } from '@/ui/Button';
import { Card } from '@/ui/Card';
import { Choice } from '@/ui/Choice';
import { FilePick } from '@/ui/FilePick';
import { Fitted } from '@/ui/Fitted';
import { Failed, Waiting } from '@/ui/States';
import { Toggle } from '@/ui/Toggle';
import { TypedField } from '@/ui/TypedField';
import { useFileRead } from '@/ui/useFileRead';
import { clockOf, figure } from '@/units/format';
import { benchQuery, sendPower } from '../queries';

export function BenchView() {
  const { at } = useJob();
  const { data: view, error } = useQuery(benchQuery(at));
  if (error) return <Failed error={error} />;
  if (!view)
    return (
      <Waiting shows="A test module’s measured day, and the array made of it.">
        Laying out the bench
      </Waiting>
    );
  const { report } = view;
  return (
    <>
      <div className="flex min-h-0 grow flex-col overflow-y-auto p-3">
        <h2 className="text-sm font-semibold">A measured day of one module, made into an array</h2>
        {view.problem && <p className="text-sm text-stop">{view.problem}</p>}
        {report ? <Laid report={report} /> : <Empty />}
      </div>
      <Board heightPx={246}>
        {report && <MadeOf report={report} />}
        {report && <DaysCard report={report} />}
        <HowTo picking={view.picking} freeing={view.freeing} />
      </Board>
    </>
  );
}

/** One action and one sentence begin the work. */
function Empty() {
  return (
    <div className="mt-2 max-w-[620px]">
      <p className="mb-2 text-sm">
        Log one module’s power through a clear day, and it tells what the whole array gives: per
        watt, mirrored for the half that faces the other way, multiplied, summed and cut at a limit.
        A table of time and power in W or kW, as CSV.
      </p>
      <TakeIn />
    </div>
  );
}

function TakeIn() {
  const { at, act, job, option } = useJob();
  const sheet = job.equipment.modules.find((m) => m.id === option.module_id);
  const { read, reading, problem } = useFileRead(
    (file: File) => sendPower(at, file),
    (file) =>
      act({
        kind: 'use-power-file',
        file,
        module_w: String(job.bench?.module_w ?? sheet?.p_max_w ?? 400),
      }),
  );
  return (
    <span className="flex flex-wrap items-center gap-2">
      <FilePick
        label={job.bench ? 'Another file' : 'Choose a measured day'}
        accept=".csv,.txt,.tsv"
        onFile={read}
      />
      {reading && (
        <span role="status" className="text-sm">
          Reading it
        </span>
      )}
      {problem && (
        <span role="alert" className="rounded-sm bg-stop-wash px-1.5 py-1 text-xs text-stop">
          {problem}
        </span>
      )}
    </span>
  );
}

type Report = Schemas['BenchReport'];

function Laid({ report }: { report: Report }) {
  const { bench } = report;
  const cuts = bench.limit_kw !== null && report.clipped_kwh > 0.005;
  return (
    <>
      <p className="text-sm">
        {bench.file.file}, {dayOf(bench.file.day)}: solar noon at{' '}
        {clockOf(Math.round(report.noon_h * 60))} standard time. Sum{' '}
        <b className="font-figure">{figure(report.whole_kwh, 1)} kWh</b>, at most{' '}
        {figure(report.most_kw, 2)} kW
        {cuts && (
          <>
            ; the limit cuts <b className="font-figure">{figure(report.clipped_kwh, 1)} kWh</b> (
            {figure((report.clipped_kwh / report.whole_kwh) * 100, 1)} %)
          </>
        )}
        .{' '}
        {report.model_kwh !== null &&
          `${report.model_told}: ${figure(report.model_kwh, 1)} kWh at the inverter.`}
      </p>
      <Fitted mostPx={824}>
        {(widthPx) => (
          <DayLines
            label="The measured sum and the model on a clear day"
            lines={[
              {
                title: 'sum of the groups',
                kw: report.whole_kw,
                colour: 'var(--color-copper)',
                dash: '',
              },
              ...(cuts
                ? [
                    {
                      title: 'let through',
                      kw: report.given_kw,
                      colour: 'var(--color-patina)',
                      dash: '',
                    },
                  ]
                : []),
              ...(report.model_kw.length > 0
                ? [{ title: 'model', kw: report.model_kw, colour: 'var(--color-ink)', dash: '6 4' }]
                : []),
            ]}
            limitKw={bench.limit_kw}
            widthPx={widthPx}
            heightPx={316}
          />
        )}
      </Fitted>
      {report.caveats.map((caveat) => (
        <p key={caveat} className="text-xs text-warn">
          {caveat}.
        </p>
      ))}
    </>
  );
}

const dayOf = (iso: string) =>
  new Date(`${iso}T12:00:00`).toLocaleDateString('en-GB', {
    day: 'numeric',
    month: 'short',
    year: 'numeric',
  });

/** What the sum is made of: groups of modules, each facing as measured or the other way. */
function MadeOf({ report }: { report: Report }) {
  const { edit, act } = useJob();
  const { bench } = report;
  const terms = bench.terms.map((t) => ({ watts: String(t.p_dc_w), mirrored: t.mirrored }));
  const typed = {
    kind: 'set-bench' as const,
    module_w: String(bench.module_w),
    limit_kw: bench.limit_kw === null ? '' : String(bench.limit_kw),
    daylight: bench.daylight,
    terms,
  };
  const withTerm = (i: number, change: Partial<(typeof terms)[number]>) => ({
    ...typed,
    terms: terms.map((t, k) => (k === i ? { ...t, ...change } : t)),
  });
  return (
    <Card
      title="Made of"
      aside={
        <button
          type="button"
          className="min-h-6 underline"
          onClick={() => void act({ kind: 'clear-bench' })}
        >
          clear the bench
        </button>
      }
      className="w-[300px] shrink-0 overflow-y-auto"
    >
      <div className="flex flex-col gap-1">
        <TypedField
          label="Test module, W"
          showLabel
          value={figure(bench.module_w)}
          commit={(module_w) => edit({ ...typed, module_w })}
        />
        {bench.terms.map((term, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a group is named by its number
          <div key={i} className="flex items-center gap-2 text-sm">
            <TypedField
              label={`Group ${i + 1}, W`}
              width={74}
              value={figure(term.p_dc_w)}
              commit={(watts) => edit(withTerm(i, { watts }))}
            />
            W
            <Toggle on={term.mirrored} onChange={(mirrored) => void act(withTerm(i, { mirrored }))}>
              mirrored
            </Toggle>
            <span className="grow" />
            <Button
              aria-label={`Take group ${i + 1} away`}
              onClick={() => void act({ ...typed, terms: terms.filter((_, k) => k !== i) })}
            >
              ×
            </Button>
          </div>
        ))}
        <span className="flex gap-1.5">
          <Button
            onClick={() =>
              void act({
                ...typed,
                terms: [...terms, { watts: String(bench.module_w * 7), mirrored: true }],
              })
            }
          >
            Add a group
          </Button>
          <Button
            onClick={() => {
              const whole = bench.terms.reduce((sum, t) => sum + t.p_dc_w, 0);
              void act({
                ...typed,
                terms: [
                  { watts: String(whole / 2), mirrored: false },
                  { watts: String(whole / 2), mirrored: true },
                ],
              });
            }}
          >
            Half each way
          </Button>
        </span>
        <TypedField
          label="Cut off at, kW"
          showLabel
          value={bench.limit_kw === null ? '' : figure(bench.limit_kw, 2)}
          placeholder="no limit"
          commit={(limit_kw) => edit({ ...typed, limit_kw })}
        />
      </div>
    </Card>
  );
}

function DaysCard({ report }: { report: Report }) {
  const { act, job } = useJob();
  const { bench } = report;
  const use = (day: string) =>
    void act({
      kind: 'use-power-file',
      file: { ...bench.file, day },
      module_w: String(bench.module_w),
    });
  return (
    <Card title="The measured day" scrolls className="w-[210px] shrink-0">
      <div className="flex flex-col gap-1.5">
        <Choice
          label="Day of the file"
          value={bench.file.day}
          items={report.days.map((d) => ({
            value: d.day,
            label: `${dayOf(d.day)}${d.clear ? '' : ', clouds'}${d.limited ? ', cut off' : ''}`,
          }))}
          className="w-full"
          onChange={use}
        />
        <Toggle
          on={bench.daylight}
          onChange={(daylight) =>
            void act({
              kind: 'set-bench',
              module_w: String(bench.module_w),
              limit_kw: bench.limit_kw === null ? '' : String(bench.limit_kw),
              daylight,
              terms: (job.bench?.terms ?? []).map((t) => ({
                watts: String(t.p_dc_w),
                mirrored: t.mirrored,
              })),
            })
          }
        >
          its clock was on daylight time
        </Toggle>
        <p className="text-xs text-ink-2">
          Steps of {report.step_min} minutes;{' '}
          {figure(report.days.find((d) => d.day === bench.file.day)?.energy_kwh_per_kw ?? 0, 2)} kWh
          for each kW.
        </p>
        <TakeIn />
      </div>
    </Card>
  );
}

function HowTo({ picking, freeing }: { picking: readonly string[]; freeing: readonly string[] }) {
  const [open, setOpen] = useState<'picking' | 'freeing'>('picking');
  return (
    <Card title="How to measure" scrolls className="min-w-[240px] grow">
      <span className="mb-1 flex gap-1.5">
        <Button
          weight={open === 'picking' ? 'pressed' : 'plain'}
          aria-pressed={open === 'picking'}
          onClick={() => setOpen('picking')}
        >
          The day
        </Button>
        <Button
          weight={open === 'freeing' ? 'pressed' : 'plain'}
          aria-pressed={open === 'freeing'}
          onClick={() => setOpen('freeing')}
        >
          The module, safely
        </Button>
      </span>
      <ul className="text-xs">
        {(open === 'picking' ? picking : freeing).map((sentence) => (
          <li key={sentence} className="mb-1">
            {sentence}
          </li>
        ))}
      </ul>
    </Card>
  );
}
