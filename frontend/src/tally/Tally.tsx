/** The running ledger beside every step: counts, limits, year, money. */
import { type ReactNode, useEffect, useState } from 'react';
import type { CheckView, OptionReport, YearReport } from '@/api/client';
import { useShade, useYear } from '@/api/useYear';
import { CatchingUp } from '@/plan/Behind';
import { useJob } from '@/plan/JobContext';
import { NO_AC } from '@/plan/NoAc';
import { NoPlan } from '@/plan/NoPlan';
import { Choice } from '@/ui/Choice';
import { Failed } from '@/ui/States';
import { figure, lossShare, signed, yearlyKwh } from '@/units/format';
import { formatLength } from '@/units/length';
import { formatWeightByArea, weightByArea } from '@/units/weight';
import { type AlikeRow, alike } from './parts/alike';
import { LimitRow } from './parts/LimitRow';
import { MoneyRows } from './parts/MoneyRows';
import { Row } from './parts/Row';
import { SurveyRows } from './parts/SurveyRows';
import { TargetRows } from './parts/TargetRows';

// Eight tightest; five on a low screen, so that the year stays above the fold.
const shownMost = () => (window.innerHeight < 900 ? 5 : 8);
const NOBODY = 'none';

interface TallyProps {
  drawerOpen: boolean;
  stepId: string;
  /** The check whose working is open. */
  checkOpen: string;
  onCheck: (key: string) => void;
}

export function Tally({ drawerOpen, stepId, checkOpen, onCheck }: TallyProps) {
  const { job, option, report, at, state } = useJob();
  const [against, setAgainst] = useState(NOBODY);
  const others = job.options.filter((o) => o.id !== option.id);
  const other = others.find((o) => o.id === against);
  const otherReport = state.reports.find((r) => r.option_id === other?.id);
  return (
    <aside
      id="tally"
      aria-label="Tally"
      className={`flex w-[306px] shrink-0 flex-col overflow-y-auto border-l border-rule bg-sheet px-3.5 pt-2.5 pb-4 max-[1100px]:fixed max-[1100px]:top-[46px] max-[1100px]:bottom-0 max-[1100px]:right-0 max-[1100px]:z-30 ${drawerOpen ? '' : 'max-[1100px]:hidden'}`}
    >
      <div className="flex min-h-7 items-center justify-between">
        <h2 className="text-base font-semibold">Tally</h2>
        {others.length > 0 && (
          <span className="flex items-center gap-1.5 text-xs text-ink-2">
            <span>{option.id.toUpperCase()} against</span>
            <Choice
              label="Compare with option"
              value={other ? against : NOBODY}
              items={[
                { value: NOBODY, label: 'no other' },
                ...others.map((o) => ({ value: o.id, label: o.id.toUpperCase() })),
              ]}
              onChange={setAgainst}
            />
          </span>
        )}
      </div>
      {stepId === 'survey' && (
        <Group title="Survey">
          <SurveyRows />
        </Group>
      )}
      <Group title="Count">
        <Counts report={report} other={otherReport} />
        {(stepId === 'build' || otherReport) && <RackingRows report={report} other={otherReport} />}
        <ToBuy report={report} />
      </Group>
      <Group title="Target">
        <TargetRows key={`${at.jobId} ${option.id}`} />
      </Group>
      <Group title="Limits">
        <NoPlan />
        <Limits report={report} open={checkOpen} onOpen={onCheck} />
      </Group>
      <Group title="Year">
        <Year {...(other ? { otherId: other.id } : {})} key={`${at.jobId} ${option.id}`} />
      </Group>
      <Group title="Money">
        <MoneyRows {...(other ? { otherId: other.id } : {})} key={`${at.jobId} ${option.id}`} />
      </Group>
    </aside>
  );
}

function Group({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section className="mt-3" aria-label={title}>
      <h3 className="border-b border-rule pb-0.5 text-xs font-semibold text-ink-2">{title}</h3>
      {children}
    </section>
  );
}

/** What the shelf does not hold of this option. */
function ToBuy({ report }: { report: OptionReport }) {
  const lacking = report.to_buy.filter((item) => item.needed > item.on_shelf);
  if (report.to_buy.length === 0) return null;
  return (
    <p className="py-[3px] text-xs text-ink-2">
      {lacking.length === 0
        ? 'All of it is on the shelf.'
        : `To buy: ${lacking.map((i) => `${i.needed - i.on_shelf} × ${i.name}`).join(', ')}.`}
    </p>
  );
}

/** Mounts, rail and weight, once a plane has them. */
function RackingRows({ report, other }: { report: OptionReport; other: OptionReport | undefined }) {
  const { job } = useJob();
  const { racking } = report;
  if (!racking) return null;
  const against = other?.racking;
  return (
    <>
      <Row
        label="Mounts"
        value={figure(racking.mounts)}
        aside={against ? signed(racking.mounts - against.mounts) : ''}
      />
      <Row
        label="Rail"
        value={formatLength(racking.rail_m, job.unit)}
        aside={
          against && Math.abs(racking.rail_m - against.rail_m) > 0.01
            ? `${racking.rail_m > against.rail_m ? '+' : '−'}${formatLength(Math.abs(racking.rail_m - against.rail_m), job.unit)}`
            : ''
        }
      />
      {racking.kg_per_m2 !== null && (
        <Row
          label="Added weight"
          value={formatWeightByArea(racking.kg_per_m2, job.unit)}
          aside={
            against && against.kg_per_m2 !== null
              ? signed(weightByArea(racking.kg_per_m2 - against.kg_per_m2, job.unit), 1)
              : ''
          }
        />
      )}
    </>
  );
}

function Counts({ report, other }: { report: OptionReport; other: OptionReport | undefined }) {
  const left = report.modules - report.modules_strung;
  return (
    <>
      <Row
        label="Modules"
        value={figure(report.modules)}
        aside={other ? signed(report.modules - other.modules) : left ? `${left} not strung` : ''}
      />
      <Row
        label="DC / AC"
        value={`${figure(report.p_dc_w / 1000, 2)} / ${report.makes_ac ? figure(report.p_ac_w / 1000, 2) : '–'} kW`}
        aside={other ? signed((report.p_dc_w - other.p_dc_w) / 1000, 2) : ''}
      />
      <Row
        label="DC:AC ratio"
        value={
          report.dc_ac_ratio === null
            ? report.makes_ac
              ? 'no AC yet'
              : 'makes no AC'
            : figure(report.dc_ac_ratio, 2)
        }
        aside={
          other && report.dc_ac_ratio !== null && other.dc_ac_ratio !== null
            ? signed(report.dc_ac_ratio - other.dc_ac_ratio, 2)
            : ''
        }
      />
    </>
  );
}

interface LimitsProps {
  report: OptionReport;
  open: string;
  onOpen: (key: string) => void;
}

function Limits({ report, open, onOpen }: LimitsProps) {
  const [all, setAll] = useState(false);
  const [noted, setNoted] = useState(false);
  const isNoted = ({ check }: CheckView) => check.kind === 'note' && check.verdict !== 'kept';
  const notes = alike(report.checks.filter(isNoted));
  const rows = alike(report.checks.filter((view) => !isNoted(view)));
  const unsettled = rows.filter(({ view }) => view.check.verdict !== 'kept').length;
  const count = Math.max(shownMost(), unsettled);
  const row = ({ view, subjects, keys }: AlikeRow) => (
    <LimitRow
      key={view.key}
      view={view}
      subjects={subjects}
      open={keys.includes(open)}
      onToggle={() => onOpen(keys.includes(open) ? '' : view.key)}
    />
  );
  const holdsOpen = ({ keys }: AlikeRow) => keys.includes(open);
  const folds = rows.findIndex(holdsOpen) >= count;
  const isNote = notes.some(holdsOpen);
  // biome-ignore lint/correctness/useExhaustiveDependencies: unfolded for what is opened, not for what becomes of it
  useEffect(() => {
    if (folds) setAll(true);
    if (isNote) setNoted(true);
  }, [open]);
  if (report.checks.length === 0) {
    return (
      <p className="py-1 text-sm text-ink-2">No modules yet: fill the roof in the Array step.</p>
    );
  }
  const shown = all ? rows : rows.slice(0, count);
  const folded = rows.length - shown.length;
  return (
    <>
      <ul>{shown.map(row)}</ul>
      {(folded > 0 || all) && (
        <button
          type="button"
          className="min-h-6 text-xs font-medium text-patina underline"
          onClick={() => setAll(!all)}
        >
          {all ? 'Show the tightest only' : `${folded} more kept`}
        </button>
      )}
      {notes.length > 0 && (
        <>
          <button
            type="button"
            aria-expanded={noted}
            className="ml-3 min-h-6 text-xs font-medium text-patina underline first:ml-0"
            onClick={() => setNoted(!noted)}
          >
            {notes.length === 1 ? '1 note' : `${notes.length} notes`}
          </button>
          {noted && <ul aria-label="Notes">{notes.map(row)}</ul>}
        </>
      )}
    </>
  );
}

function Year({ otherId }: { otherId?: string }) {
  const { at, report } = useJob();
  const { query, behind } = useYear(at, report.modules_strung > 0 && report.makes_ac);
  const { query: other } = useYear(
    { ...at, optionId: otherId ?? at.optionId },
    otherId !== undefined,
  );
  if (report.modules_strung === 0) {
    return <p className="py-1 text-sm text-ink-2">No year yet: no module is in a string.</p>;
  }
  if (!report.makes_ac) {
    return <p className="py-1 text-sm text-ink-2">{NO_AC}</p>;
  }
  if (query.isError) return <Failed error={query.error} tight />;
  const year = query.data;
  if (!year)
    return (
      <p role="status" className="py-1 text-sm text-ink-2">
        The first year of this design, hour by hour, stands here in a moment.
      </p>
    );
  const beside = otherId && other.data ? year.energy_kwh - other.data.energy_kwh : null;
  return (
    <div aria-busy={behind}>
      {behind && <CatchingUp what="The year" />}
      <div className={behind ? 'opacity-50' : ''}>
        <YearRows year={year} besideKwh={beside} />
      </div>
    </div>
  );
}

function YearRows({ year, besideKwh }: { year: YearReport; besideKwh: number | null }) {
  return (
    <>
      <Row
        label="To the meter"
        value={yearlyKwh(year.energy_kwh)}
        aside={besideKwh === null ? '' : signed(Math.round(besideKwh / 10) * 10)}
      />
      <Row label="Per kW DC" value={`${figure(year.specific_kwh_per_kw)} kWh`} />
      <Row
        label="Clipping"
        value={`−${lossShare(year.clipped_frac)}`.replace('−0 %', '0 %')}
        aside={clippedBand(year)}
      />
      {year.tracker_loss_kwh >= 0.5 && (
        <Row label="MPPT limit loss" value={`−${figure(year.tracker_loss_kwh)} kWh`} />
      )}
      {(year.hot_loss_kwh ?? 0) >= 0.5 && (
        <Row label="Thermal derating" value={`−${figure(year.hot_loss_kwh ?? 0)} kWh`} />
      )}
      {(year.export_loss_kwh ?? 0) >= 0.5 && (
        <Row
          label="Curtailed by the export limit"
          value={`−${figure(year.export_loss_kwh ?? 0)} kWh`}
        />
      )}
      {year.faults.map((fault) => (
        <p key={fault} className="py-0.5 text-xs text-stop">
          {fault}.
        </p>
      ))}
      <ShadeRow />
      {year.stand_in_weather && (
        <p className="mt-1 rounded-sm border border-warn bg-warn-wash px-2 py-1 text-xs text-warn">
          Stand-in weather.{' '}
          <details className="inline">
            <summary className="inline cursor-pointer underline">What this rests on</summary>
            <ul className="mt-1 list-disc pl-4">
              {year.caveats.map((caveat) => (
                <li key={caveat}>{caveat}.</li>
              ))}
              <li>Module model: {year.diode.fitted_by}.</li>
              {year.diode.warning && <li>{year.diode.warning}.</li>}
            </ul>
          </details>
        </p>
      )}
    </>
  );
}

/** The share clipped of even hours and of sun and cloud almost alone; the year lies between. */
function clippedBand(year: YearReport): string {
  const frac = year.clipped_kwh > 0 ? year.clipped_frac / year.clipped_kwh : 0;
  const [low, high] = [year.clipped_hourly_kwh, year.clipped_most_kwh].map((kwh) =>
    figure(kwh * frac * 100, 1),
  );
  return `${low} to ${high} %`;
}

/** What shade takes of the light; the year's energy is after it. */
function ShadeRow() {
  const { at } = useJob();
  const { query, behind } = useShade(at, true);
  const lost = query.data?.lost_frac;
  return (
    <div aria-busy={behind} className={behind ? 'opacity-50' : ''}>
      <Row
        label="Shade, of the light"
        value={lost === undefined ? '' : `${signed(-lost * 100, 1) || '0.0'} %`}
        aside="in the year"
      />
    </div>
  );
}
