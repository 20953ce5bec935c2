/** The sun's paths over a spot of the array, with the days' rise, set and length. */
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { RoofPlane, Schemas } from '@/api/client';
import { SunPathChart, type SunPathData } from '@/charts/SunPathChart';
import { SunPlanChart } from '@/charts/SunPlanChart';
import { useJob } from '@/plan/JobContext';
import { Board } from '@/ui/Board';
import { Button } from '@/ui/Button';
import { Failed } from '@/ui/States';
import { useKeys } from '@/ui/useKeys';
import { useSize } from '@/ui/useSize';
import { clockOf, dayName, figure } from '@/units/format';
import type { When } from '../moments';
import { sunPathsQuery } from '../queries';
import { DaySlider, LAST_DAY } from './DaySlider';

interface PathViewProps {
  plane: RoofPlane;
  /** The spot looked from; the middle of the plane without one. */
  moduleId: string;
  when: When;
  onWhen: (when: When) => void;
}

/** Narrower, hours and names would lie on each other: it is swiped along then. */
const LEAST_PX = 640;

export function PathView({ plane, moduleId, when, onWhen }: PathViewProps) {
  const { job, at } = useJob();
  const [size, measure] = useSize();
  const [above, setAbove] = useState(false);
  const { data, error, isPending } = useQuery(sunPathsQuery(at, plane.id, moduleId, when.day));
  useKeys({
    v: () => setAbove(!above),
    '[': () => onWhen({ ...when, day: (when.day + LAST_DAY) % 365 }),
    ']': () => onWhen({ ...when, day: (when.day + 1) % 365 }),
  });
  const spot = data?.own_day?.spots.reduce<Schemas['SunSpot'] | null>(
    (best, s) =>
      Math.abs(s.minute - when.minute) < Math.abs((best?.minute ?? -999) - when.minute) ? s : best,
    null,
  );
  const now = spot ? { azimuthDeg: spot.azimuth_deg, elevationDeg: spot.elevation_deg } : null;
  return (
    <>
      <div
        ref={measure}
        className="relative min-h-[320px] shrink-0 grow basis-0 overflow-x-auto overflow-y-hidden"
      >
        {isPending && <p className="p-4 text-sm text-ink-2">Looking at the sky</p>}
        {error && <Failed error={error} tight />}
        {data &&
          size &&
          (above ? (
            <SunPlanChart
              {...chartOf(data)}
              now={now}
              widthPx={size.widthPx}
              heightPx={size.heightPx}
            />
          ) : (
            <SunPathChart
              {...chartOf(data)}
              planeSlopeDeg={data.plane_slope_deg}
              southern={job.site.latitude_deg < 0}
              now={now}
              widthPx={Math.max(size.widthPx, LEAST_PX)}
              heightPx={size.heightPx}
            />
          ))}
        <span className="absolute top-2 right-3">
          <Button hint="V" onClick={() => setAbove(!above)}>
            {above ? 'Seen from the roof' : 'Seen from above'}
          </Button>
        </span>
      </div>
      <Board heightPx={216}>
        {data && <Days days={withOwn(data)} />}
        {data && (
          <div className="flex w-[330px] flex-col text-xs text-ink-2">
            <span className="flex items-center gap-2 text-sm text-ink">
              <b className="w-16 font-figure text-base">{dayName(when.day)}</b>
              <DaySlider when={when} onWhen={onWhen} />
            </span>
            <p className="mt-1">
              Black: this day
              {spot
                ? `, the sun at ${clockOf(spot.minute)}: ${figure(spot.azimuth_deg)}°, ${figure(spot.elevation_deg, 1)}° high`
                : ', without sun'}
              . Seen from the {data.spot}. Solid: what stands before the sky; grey below: behind the
              plane itself. Standard time, UTC{data.utc_offset_h >= 0 ? '+' : '−'}
              {Math.abs(data.utc_offset_h)}, never daylight time. Rise and set by the sun's upper
              edge on a level horizon.
            </p>
          </div>
        )}
      </Board>
    </>
  );
}

const chartOf = (data: Schemas['SunPaths']): SunPathData => ({
  days: data.days,
  ownDay: data.own_day,
  blocked: data.blocked,
  planeAzimuthDeg: data.plane_azimuth_deg,
});

/** The usual days, and the one asked for where it is none of them. */
function withOwn({ days, own_day }: Schemas['SunPaths']): Schemas['DayPath'][] {
  return own_day && days.every((d) => d.day !== own_day.day) ? [...days, own_day] : days;
}

function Days({ days }: { days: Schemas['DayPath'][] }) {
  const spot = (s: Schemas['SunSpot'] | null) =>
    s ? `${clockOf(s.minute)} at ${figure(s.azimuth_deg)}°` : '';
  return (
    <table className="h-fit text-sm">
      <thead>
        <tr className="text-left text-xs text-ink-2">
          <th className="pr-5 font-normal">Day</th>
          <th className="pr-5 font-normal">Rises</th>
          <th className="pr-5 font-normal">Sets</th>
          <th className="pr-5 text-right font-normal">Length</th>
          <th className="text-right font-normal">Highest</th>
        </tr>
      </thead>
      <tbody className="font-figure">
        {days.map((d) => (
          <tr key={d.day}>
            <td className="pr-5">{dayName(d.day)}</td>
            <td className="pr-5">{spot(d.rise)}</td>
            <td className="pr-5">{spot(d.set)}</td>
            <td className="pr-5 text-right">{figure(d.day_length_h, 1)} h</td>
            <td className="text-right">
              {figure(Math.max(0, ...d.spots.map((s) => s.elevation_deg)), 1)}°
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
