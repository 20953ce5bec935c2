/** The sun's paths over a spot of the array, with the days' rise, set and length. */
import { useQuery } from '@tanstack/react-query';
import type { RoofPlane, Schemas } from '@/api/client';
import { sunPathsQuery } from '@/api/sunQueries';
import { SunPathChart } from '@/charts/SunPathChart';
import { useJob } from '@/plan/JobContext';
import { Board } from '@/ui/Card';
import { useSize } from '@/ui/useSize';
import { dayName, figure } from '@/units/format';

interface PathViewProps {
  plane: RoofPlane;
  /** The spot looked from; the middle of the plane without one. */
  moduleId: string;
}

const clockOf = (minute: number) =>
  `${Math.floor(minute / 60)}:${String(minute % 60).padStart(2, '0')}`;

export function PathView({ plane, moduleId }: PathViewProps) {
  const { job, at } = useJob();
  const [size, measure] = useSize();
  const { data, error, isPending } = useQuery(sunPathsQuery(at, plane.id, moduleId));
  return (
    <>
      <div ref={measure} className="relative min-h-0 grow overflow-hidden">
        {isPending && <p className="p-4 text-sm text-ink-2">Looking at the sky</p>}
        {error && <p className="p-4 text-sm text-stop">{error.message}</p>}
        {data && size && (
          <SunPathChart
            days={data.days}
            blocked={data.blocked}
            planeAzimuthDeg={data.plane_azimuth_deg}
            planeSlopeDeg={data.plane_slope_deg}
            southern={job.site.latitude_deg < 0}
            widthPx={size.widthPx}
            heightPx={size.heightPx}
          />
        )}
      </div>
      <Board heightPx={180}>
        {data && <Days days={data.days} />}
        {data && (
          <p className="max-w-[300px] self-end text-xs text-ink-2">
            Seen from the {data.spot}. Solid: what stands before the sky; grey below: behind the
            plane itself. Standard time, UTC{data.utc_offset_h >= 0 ? '+' : '−'}
            {Math.abs(data.utc_offset_h)}, never daylight time. Rise and set by the sun's upper edge
            on a level horizon.
          </p>
        )}
      </Board>
    </>
  );
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
