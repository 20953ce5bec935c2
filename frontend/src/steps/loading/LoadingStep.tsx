/** Loading: the year and its clipping, sizes, the house, options side by side, and what to buy. */
import { useState } from 'react';
import type { Schemas, YearReport } from '@/api/client';
import { useYear } from '@/api/useYear';
import { DayChart } from '@/charts/DayChart';
import { clippedAt, LimitCurve } from '@/charts/LimitCurve';
import { MonthBars } from '@/charts/MonthBars';
import { TableBehind, type TableData } from '@/charts/TableBehind';
import { CatchingUp } from '@/plan/Behind';
import { useJob } from '@/plan/JobContext';
import { NoAc } from '@/plan/NoAc';
import { NoModules } from '@/plan/NoModules';
import { NormalLink } from '@/plan/NormalLink';
import { useView } from '@/plan/useView';
import { Board } from '@/ui/Board';
import { Button } from '@/ui/Button';
import { Card, Toolbar } from '@/ui/Card';
import { Fitted } from '@/ui/Fitted';
import { Empty, Failed, Waiting } from '@/ui/States';
import { useKeys } from '@/ui/useKeys';
import { ViewButtons } from '@/ui/ViewButtons';
import { clockOf, dayName, figure, MONTHS } from '@/units/format';
import { AtWorkView } from './parts/AtWorkView';
import { BenchView } from './parts/BenchView';
import { BuyView } from './parts/BuyView';
import { ClipCalendarView } from './parts/ClipCalendarView';
import { ComparedView } from './parts/ComparedView';
import { HouseView } from './parts/HouseView';
import { OwnPointView } from './parts/OwnPointView';
import { SweepView } from './parts/SweepView';
import { WaterfallView } from './parts/WaterfallView';
import { STUDIES, VIEWS, YEAR_VIEWS } from './views';

export default function LoadingStep() {
  const { at, report } = useJob();
  const { query, behind } = useYear(at, report.modules_strung > 0 && report.makes_ac);
  const year = query.data;
  if (report.modules === 0) return <NoModules wants="the year follows by itself." />;
  if (report.modules_strung === 0) {
    return <Empty>No module is in a string: Strings, Fixes says why and what takes them.</Empty>;
  }
  if (!report.makes_ac) return <NoAc />;
  if (query.isError) return <Failed error={query.error} />;
  if (!year)
    return (
      <Waiting shows="A day of this design against the inverter’s limit, and what any other limit would clip.">
        Working out the year
      </Waiting>
    );
  return <LoadingDays year={year} stale={behind} />;
}

type DayKind = Schemas['DayKind'];

const DAY_KEYS: Record<DayKind, string> = {
  'most-clipped': 'M',
  'clear-summer': 'S',
  'clear-winter': 'W',
};

type ViewId = (typeof VIEWS)[number]['id'];

const STUDY = {
  sweep: SweepView,
  house: HouseView,
  compared: ComparedView,
  bench: BenchView,
  buy: BuyView,
};

const isStudy = (view: ViewId): view is keyof typeof STUDY => view in STUDY;

interface LoadingDaysProps {
  year: YearReport;
  stale: boolean;
}

function LoadingDays({ year, stale }: LoadingDaysProps) {
  const [shown, setShown] = useState(year.days[0]?.kind);
  const [tried, setTried] = useState<number | null>(null);
  const [table, setTable] = useState<TableData | null>(null);
  const [view, setView] = useView<ViewId>(VIEWS);
  const Study = isStudy(view) ? STUDY[view] : null;
  const day = year.days.find((d) => d.kind === shown) ?? year.days[0];
  const limitKw = tried ?? year.limit_kw;
  const limits = pointsOf(year.limits);
  const here =
    tried === null
      ? { clippedKwh: year.clipped_kwh, clippedFrac: year.clipped_frac }
      : clippedAt(limits, tried);
  const pick = (kind: DayKind) => {
    if (year.days.some((d) => d.kind === kind)) setShown(kind);
    setView('day');
  };
  useKeys({
    m: () => pick('most-clipped'),
    s: () => pick('clear-summer'),
    w: () => pick('clear-winter'),
  });
  if (!day) return null;
  return (
    <>
      <Toolbar>
        <Button
          weight={Study ? 'plain' : 'pressed'}
          aria-pressed={!Study}
          onClick={() => setView('day')}
        >
          The year
        </Button>
        <ViewButtons<ViewId> views={STUDIES} view={view} onView={setView} />
        <span className="grow" />
        {stale && <CatchingUp />}
        {tried !== null && (
          <Button onClick={() => setTried(null)}>Back to {figure(year.limit_kw, 2)} kW</Button>
        )}
        {year.stand_in_weather && (
          <span className="shrink-0 whitespace-nowrap text-sm text-warn">stand-in weather</span>
        )}
      </Toolbar>
      {!Study && (
        <div className="flex shrink-0 flex-wrap items-center gap-1.5 px-3.5 pt-2">
          <ViewButtons<ViewId> views={YEAR_VIEWS} view={view} onView={setView} />
          <span className="grow" />
          {view === 'day' && <NormalLink />}
        </div>
      )}
      {view === 'day' && (
        <div className="flex shrink-0 flex-wrap gap-1.5 px-3.5 pt-1.5">
          {year.days.map((d) => (
            <Button
              key={d.kind}
              weight={d === day ? 'pressed' : 'plain'}
              aria-pressed={d === day}
              hint={DAY_KEYS[d.kind]}
              onClick={() => setShown(d.kind)}
            >
              {d.title}, {dayName(d.day_of_year)}
            </Button>
          ))}
          <Button
            onClick={() =>
              setTable({
                title: day.title,
                columns: ['From', 'DC kW', 'AC without limit kW', 'AC kW'],
                rows: day.dc_kw.map((dc, i) => [
                  clockOf((i * 1440) / day.dc_kw.length),
                  figure(dc, 2),
                  figure(day.unlimited_kw[i] ?? 0, 2),
                  figure(day.ac_kw[i] ?? 0, 2),
                ]),
              })
            }
          >
            As table
          </Button>
        </div>
      )}
      <div
        aria-busy={stale}
        className={`flex shrink-0 grow basis-0 flex-col ${view === 'own' ? 'min-h-[520px] max-md:basis-auto' : 'min-h-[200px]'} ${stale ? 'opacity-50' : ''}`}
      >
        {view === 'day' && (
          <DayChart
            day={{
              title: day.title,
              dcKw: day.dc_kw,
              unlimitedKw: day.unlimited_kw,
              trackersKw: day.tracker_kw,
              limits: pointsOf(day.limits),
            }}
            limitKw={limitKw}
            datasheetLimitKw={year.limit_kw}
            onLimit={setTried}
          />
        )}
        {view === 'waterfall' && <WaterfallView year={year} />}
        {view === 'calendar' && <ClipCalendarView year={year} />}
        {view === 'work' && <AtWorkView year={year} />}
        {view === 'own' && <OwnPointView />}
        {Study && <Study />}
      </div>
      {!Study && view !== 'own' && (
        <Board heightPx={236}>
          <Card
            title="Energy by month, kWh"
            aside={
              <button
                type="button"
                className="min-h-6 underline"
                onClick={() =>
                  setTable({
                    title: 'Energy by month',
                    columns: ['Month', 'kWh'],
                    rows: MONTHS.map((m, i) => [m, figure(year.monthly_kwh[i] ?? 0)]),
                  })
                }
              >
                as table
              </button>
            }
            className="shrink-0"
          >
            <Fitted mostPx={462}>
              {(widthPx) => (
                <MonthBars
                  label="Energy at the meter by month"
                  valuesKwh={year.monthly_kwh}
                  widthPx={widthPx}
                  heightPx={172}
                />
              )}
            </Fitted>
          </Card>
          <Card
            title="Clipped by limit"
            aside={
              <button
                type="button"
                className="min-h-6 underline"
                onClick={() =>
                  setTable({
                    title: 'Clipped by limit',
                    columns: ['Limit kW', 'Clipped kWh', 'Share %'],
                    rows: year.limits.map((l) => [
                      figure(l.limit_kw, 2),
                      figure(l.clipped_kwh),
                      figure(l.clipped_frac * 100, 1),
                    ]),
                  })
                }
              >
                as table
              </button>
            }
            className="min-w-[330px] grow"
          >
            <p className="whitespace-nowrap text-sm">
              At {figure(limitKw, 2)} kW: {figure(here.clippedKwh)} kWh a year
              {tried === null &&
                ` (${figure(year.clipped_hourly_kwh)} to ${figure(year.clipped_most_kwh)})`}
            </p>
            <Fitted mostPx={320}>
              {(widthPx) => (
                <LimitCurve points={limits} limitKw={limitKw} widthPx={widthPx} heightPx={144} />
              )}
            </Fitted>
          </Card>
        </Board>
      )}
      {table && <TableBehind table={table} open onOpenChange={() => setTable(null)} />}
    </>
  );
}

function pointsOf(costs: Schemas['LimitCost'][]) {
  return costs.map((c) => ({
    limitKw: c.limit_kw,
    clippedKwh: c.clipped_kwh,
    clippedFrac: c.clipped_frac,
  }));
}
