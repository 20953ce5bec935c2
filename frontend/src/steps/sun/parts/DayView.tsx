/** A day on the site: date and time by slider, shadows to scale, each module's light. */
import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { LitLines } from '@/charts/LitLines';
import { Pane } from '@/drawing/Pane';
import { useJob } from '@/plan/JobContext';
import { NorthAndScale } from '@/plan/site/SiteGround';
import { extentOf } from '@/plan/site/siteFrame';
import { Board } from '@/ui/Board';
import { Button } from '@/ui/Button';
import { Card } from '@/ui/Card';
import { Slider } from '@/ui/Slider';
import { useKeys } from '@/ui/useKeys';
import { useSize } from '@/ui/useSize';
import { clockOf, dayName } from '@/units/format';
import { countOf, meanOf, momentAt, type When } from '../moments';
import { type SunDay, sunDayQuery } from '../queries';
import { DaySlider } from './DaySlider';
import { ShadowPlan } from './ShadowPlan';
import { SunDial } from './SunDial';

interface DayViewProps {
  when: When;
  onWhen: (when: When) => void;
  chosenId: string;
  nameOf: (id: string) => string;
  onChoose: (id: string) => void;
}

const STEP_MIN = 15;
const FRAME_MS = 160;
const QUICK_DAYS = [354, 79, 171, 265];

export function DayView({ when, onWhen, chosenId, nameOf, onChoose }: DayViewProps) {
  const { state, job, at } = useJob();
  const [playing, setPlaying] = useState(false);
  const { data: day, error, isPlaceholderData } = useQuery(sunDayQuery(at, when.day));
  const moment = day && momentAt(day, when.minute);
  const [first, last] = [day?.moments[0]?.minute ?? 0, day?.moments.at(-1)?.minute ?? 1439];
  const step = (by: number) =>
    onWhen({ ...when, minute: Math.min(last, Math.max(first, when.minute + by * STEP_MIN)) });
  const turnDay = (by: number) => onWhen({ ...when, day: (when.day + by + 365) % 365 });
  useKeys({
    ',': () => step(-1),
    '.': () => step(1),
    '[': () => turnDay(-1),
    ']': () => turnDay(1),
    p: () => setPlaying(!playing),
  });
  useEffect(() => {
    // Another day's answer tells nothing of when this one ends.
    if (!playing || isPlaceholderData) return undefined;
    const timer = setTimeout(() => {
      const next = when.minute + STEP_MIN;
      if (next > last) setPlaying(false);
      else onWhen({ ...when, minute: Math.max(first, next) });
    }, FRAME_MS);
    return () => clearTimeout(timer);
  }, [playing, isPlaceholderData, when, first, last, onWhen]);
  const play = () => {
    if (!playing && when.minute >= last) onWhen({ ...when, minute: first });
    setPlaying(!playing);
  };
  return (
    <>
      <Pane
        points={extentOf(state)}
        padPx={{ left: 96, right: 60, top: 30, bottom: 30 }}
        label={`Shadows on the site, ${dayName(when.day)} at ${clockOf(when.minute)}, north up`}
        zoomable
        overlay={() =>
          error ? (
            <p
              role="alert"
              className="absolute top-2 left-24 rounded-md border border-stop bg-sheet px-2 py-1 text-sm text-stop"
            >
              {error.message}
            </p>
          ) : day && !moment ? (
            <p role="status" className="absolute top-2 left-24 text-sm">
              The sun does not rise on this day.
            </p>
          ) : null
        }
      >
        {({ camera, widthPx, heightPx }) => (
          <>
            {day && moment && (
              <g opacity={isPlaceholderData ? 0.6 : 1}>
                <ShadowPlan
                  camera={camera}
                  day={day}
                  moment={moment}
                  chosenId={chosenId}
                  nameOf={nameOf}
                  onChoose={onChoose}
                />
                <SunDial azimuthDeg={moment.azimuth_deg} elevationDeg={moment.elevation_deg} />
              </g>
            )}
            <NorthAndScale camera={camera} widthPx={widthPx} heightPx={heightPx} unit={job.unit} />
          </>
        )}
      </Pane>
      <Board heightPx={196}>
        <Card title="Day and time" className="flex w-[430px] shrink-0 flex-col">
          <div className="grid grid-cols-[84px_1fr] items-center gap-x-2 gap-y-1 text-sm">
            <b className="font-figure text-base">{dayName(when.day)}</b>
            <DaySlider when={when} onWhen={onWhen} />
            <b className="font-figure text-base">{clockOf(moment?.minute ?? when.minute)}</b>
            <Slider
              label="Time of day"
              value={moment?.minute ?? when.minute}
              min={first}
              max={Math.max(last, first + STEP_MIN)}
              step={STEP_MIN}
              told={clockOf(moment?.minute ?? when.minute)}
              onChange={(minute) => onWhen({ ...when, minute })}
            />
          </div>
          <div className="mt-1 flex flex-wrap items-center gap-1.5">
            <Button weight="main" hint="P" onClick={play}>
              {playing ? 'Stop' : 'Play the day'}
            </Button>
            {QUICK_DAYS.map((d) => (
              <Button
                key={d}
                weight={d === when.day ? 'pressed' : 'plain'}
                aria-pressed={d === when.day}
                onClick={() => onWhen({ ...when, day: d })}
              >
                {dayName(d)}
              </Button>
            ))}
          </div>
          <p className="mt-auto text-xs text-ink-2">
            {moment ? <Told counts={countOf(moment)} /> : null} Standard time, never daylight time;
            every {STEP_MIN} minutes, quick sky. Shadows of crowns are drawn lighter.
          </p>
        </Card>
        {day && (
          <Timeline
            day={day}
            minute={moment?.minute ?? when.minute}
            chosenId={chosenId}
            nameOf={nameOf}
            onMinute={(minute) => onWhen({ ...when, minute })}
          />
        )}
      </Board>
    </>
  );
}

function Told({ counts }: { counts: ReturnType<typeof countOf> }) {
  const of = counts.lit + counts.partly + counts.shaded;
  return (
    <b className="text-ink">
      {counts.lit} of {of} modules in full sun, {counts.partly} partly, {counts.shaded} without
      beam.
    </b>
  );
}

interface TimelineProps {
  day: SunDay;
  minute: number;
  chosenId: string;
  nameOf: (id: string) => string;
  onMinute: (minute: number) => void;
}

/** The chosen module's substrings through the day, or the whole array. */
function Timeline({ day, minute, chosenId, nameOf, onMinute }: TimelineProps) {
  const [size, measure] = useSize();
  const index = day.modules.findIndex((m) => m.module_id === chosenId);
  const name = index < 0 ? 'whole array' : nameOf(chosenId);
  const parts =
    index < 0
      ? [day.moments.map((m) => meanOf(m.lit_frac.map(meanOf)))]
      : (day.moments[0]?.lit_frac[index] ?? []).map((_, s) =>
          day.moments.map((m) => m.lit_frac[index]?.[s] ?? 0),
        );
  return (
    <Card
      title={`Beam, % through the day: ${name}`}
      aside={index < 0 ? 'click a module' : 'by substring'}
      className="flex min-w-[340px] grow flex-col"
    >
      <div ref={measure} className="relative min-h-0 grow">
        {size && (
          <LitLines
            label={`Share of the beam through the day, ${name}`}
            minutes={day.moments.map((m) => m.minute)}
            parts={parts}
            minute={minute}
            widthPx={size.widthPx}
            heightPx={size.heightPx}
            onMinute={onMinute}
          />
        )}
      </div>
    </Card>
  );
}
