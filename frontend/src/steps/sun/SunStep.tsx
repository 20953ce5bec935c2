/** Sun: shade on each module, a day of shadows, who throws them, the sun's paths, the weather. */
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { RoofPlane } from '@/api/client';
import { useShade } from '@/api/useYear';
import { CatchingUp } from '@/plan/Behind';
import { useJob } from '@/plan/JobContext';
import { NormalLink } from '@/plan/NormalLink';
import { PlaneTabs } from '@/plan/PlaneTabs';
import { useView } from '@/plan/useView';
import { Toolbar } from '@/ui/Card';
import { Choice } from '@/ui/Choice';
import { Empty, Failed, Waiting } from '@/ui/States';
import { useKeys } from '@/ui/useKeys';
import { ViewButtons } from '@/ui/ViewButtons';
import { monthOfDay } from '@/units/format';
import type { When } from './moments';
import { AnglesView } from './parts/AnglesView';
import { DayView } from './parts/DayView';
import { PathView } from './parts/PathView';
import { ShadeView } from './parts/ShadeView';
import { WeatherView } from './parts/WeatherView';
import { WhoView } from './parts/WhoView';
import { type Period, periodsOf } from './periods';
import { type ShadeReport, sunDayQuery } from './queries';
import { VIEWS } from './views';

export default function SunStep() {
  const { plane, report } = useJob();
  if (!plane) return <Empty>Measure a roof plane first.</Empty>;
  return <SunOnPlane plane={plane} laid={report.modules > 0} />;
}

// A winter morning: low sun, long shadows.
const FIRST_LOOK: When = { day: 354, minute: 10 * 60 };

function SunOnPlane({ plane, laid }: { plane: RoofPlane; laid: boolean }) {
  const { job, option, at } = useJob();
  const periods = periodsOf(job.site.latitude_deg < 0);
  const [period, setPeriod] = useState(0);
  const [chosenId, setChosenId] = useState('');
  const [culprit, setCulprit] = useState<number | null>(null);
  const [when, setWhen] = useState<When>(FIRST_LOOK);
  const [view, setView] = useView(VIEWS);
  const { query, behind } = useShade(at, laid);
  const shade = query.data;
  const chosen = periods[period] ?? periods[0];
  const months = periods.length - 12;
  const next = (by: number) =>
    setPeriod((now) => {
      const stop = (now < months ? 12 : now - months) + by;
      return (stop + 13) % 13 === 12 ? 0 : ((stop + 13) % 13) + months;
    });
  useKeys({
    ...(view === 'shade' ? { ',': () => next(-1), '.': () => next(1) } : {}),
    y: () => setPeriod(0),
  });
  const nameOf = (id: string) => {
    for (const a of option.arrays) {
      const i = a.modules.findIndex((m) => m.id === id);
      const name = job.survey.planes.find((p) => p.id === a.plane_id)?.name ?? '';
      if (i >= 0) return option.arrays.length > 1 ? `${name} ${i + 1}` : `Module ${i + 1}`;
    }
    return id;
  };
  const needsModules = view !== 'weather' && view !== 'angles' && !laid;
  return (
    <>
      <Toolbar>
        <ViewButtons views={VIEWS} view={view} onView={setView} />
        {view === 'shade' && laid && (
          <Choice
            label="Time of year"
            value={chosen?.id ?? ''}
            items={periods.map((p) => ({ value: p.id, label: p.title }))}
            onChange={(id) => setPeriod(periods.findIndex((p) => p.id === id))}
          />
        )}
        {view === 'day' && laid && <NormalLink />}
        <Told shade={laid ? shade : undefined} behind={behind} />
      </Toolbar>
      {(view === 'shade' || view === 'path') && <PlaneTabs />}
      {shade?.standing_in.map((sentence) => (
        <p key={sentence} role="alert" className="bg-stop-wash px-3.5 py-1 text-sm text-stop">
          {sentence}
        </p>
      ))}
      {needsModules ? (
        <Empty>
          No module is laid yet: fill a roof in the Array step, and its shade is worked out here.
        </Empty>
      ) : view === 'path' ? (
        <PathView plane={plane} moduleId={chosenId} when={when} onWhen={setWhen} />
      ) : view === 'day' ? (
        <DayView
          when={when}
          onWhen={setWhen}
          chosenId={chosenId}
          nameOf={nameOf}
          onChoose={setChosenId}
        />
      ) : view === 'weather' ? (
        <WeatherView />
      ) : view === 'angles' ? (
        <AnglesView />
      ) : view === 'who' ? (
        <Who
          shade={shade}
          behind={behind}
          nameOf={nameOf}
          picked={culprit}
          onPick={setCulprit}
          error={query.error}
        />
      ) : (
        <ShadeView
          plane={plane}
          shade={shade}
          behind={behind}
          problem={query.error?.message ?? ''}
          period={chosen ?? (periods[0] as Period)}
          chosenId={chosenId}
          nameOf={nameOf}
          onChoose={setChosenId}
          onCulprit={(number) => {
            setCulprit(number);
            setView('who');
          }}
          month={monthOfDay(when.day)}
          hour={Math.floor(when.minute / 60)}
        />
      )}
    </>
  );
}

function Told({ shade, behind }: { shade: ShadeReport | undefined; behind: boolean }) {
  return (
    <>
      <span className="grow" />
      {shade && behind && <CatchingUp />}
      {shade && !behind && (
        <span className="text-sm whitespace-nowrap text-ink-2" title={shade.told}>
          {shade.resolution} sky
        </span>
      )}
    </>
  );
}

interface WhoProps {
  shade: ShadeReport | undefined;
  behind: boolean;
  nameOf: (id: string) => string;
  picked: number | null;
  onPick: (number: number) => void;
  error: Error | null;
}

/** The modules' places on the site come with any day of shadows. */
function Who({ shade, error, ...rest }: WhoProps) {
  const { at } = useJob();
  const { data: day } = useQuery(sunDayQuery(at, FIRST_LOOK.day));
  if (error) return <Failed error={error} />;
  if (!shade || !day)
    return (
      <Waiting shows="What stands before the sky, by what it takes from the array in a year.">
        Looking at the sky from every module
      </Waiting>
    );
  return <WhoView shade={shade} rings={day.modules} {...rest} />;
}
