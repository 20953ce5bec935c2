/** The sun's paths by bearing and height, with hour lines and the sky that is taken. */
import { scaleLinear } from 'd3-scale';
import { clockOf, dayName, figure } from '@/units/format';
import { Chart } from './Chart';
import { clearLabels } from './labels';

export interface SunSpot {
  minute: number;
  azimuth_deg: number;
  elevation_deg: number;
}

export interface SunPathData {
  days: readonly { day: number; spots: readonly SunSpot[] }[];
  /** A day somebody asked for, besides the usual ones. */
  ownDay: { day: number; spots: readonly SunSpot[] } | null;
  blocked: readonly {
    azimuth_deg: number;
    from_deg: number;
    to_deg: number;
    name: string;
    kind: string;
  }[];
  planeAzimuthDeg: number;
}

interface SunPathChartProps extends SunPathData {
  planeSlopeDeg: number;
  southern: boolean;
  /** Where the sun stands at the moment looked at elsewhere. */
  now: { azimuthDeg: number; elevationDeg: number } | null;
  widthPx: number;
  heightPx: number;
}

const PAD = { left: 44, right: 16, top: 22, bottom: 40 };
const HALF_WIDTH_DEG = 130;
/** Little is gained from a sun lower than this; common practice. */
const LOW_DEG = 10;
const COMPASS: Record<number, string> = {
  0: 'N',
  45: 'NE',
  90: 'E',
  135: 'SE',
  180: 'S',
  225: 'SW',
  270: 'W',
  315: 'NW',
};
export const KIND_FILL: Record<string, string> = {
  horizon: 'var(--color-ink-3)',
  tree: 'var(--color-patina)',
  house: 'var(--color-copper)',
  pole: 'var(--color-ink)',
  obstruction: 'var(--color-obstruction)',
  roof: 'var(--color-field)',
  rows: 'var(--color-field)',
};

/** Degrees right of the middle of the chart, from −180 to 180. */
export const fromMiddle = (azimuthDeg: number, middleDeg: number) =>
  ((azimuthDeg - middleDeg + 540) % 360) - 180;

/** How high the plane itself reaches in a bearing: below that the sun stands behind it. */
export function planeRiseDeg(azimuthDeg: number, facingDeg: number, slopeDeg: number): number {
  const off = ((azimuthDeg - facingDeg) * Math.PI) / 180;
  const rise = Math.atan(-Math.tan((slopeDeg * Math.PI) / 180) * Math.cos(off));
  return Math.max(0, (rise * 180) / Math.PI);
}

const NO_DAY = { day: -1, spots: [] };
const topOf = (d: { spots: readonly SunSpot[] }) =>
  Math.max(0, ...d.spots.map((s) => s.elevation_deg));
/** Lower than this a name would lie on the others'. */
const NAMED_FROM_DEG = 12;

/** The sun at each full hour of each day, with who stands before it. */
export function sunReadings(days: SunPathData['days'], blocked: SunPathData['blocked']) {
  return days.flatMap(({ day, spots }) =>
    spots
      .filter((s) => s.minute % 60 === 0 && s.elevation_deg >= 0)
      .map((s) => {
        const before = blocked.find(
          (b) =>
            Math.abs(fromMiddle(b.azimuth_deg, s.azimuth_deg)) <= 0.5 &&
            b.from_deg <= s.elevation_deg &&
            s.elevation_deg <= b.to_deg,
        );
        return {
          azimuthDeg: s.azimuth_deg,
          elevationDeg: s.elevation_deg,
          told: `${dayName(day)} ${clockOf(s.minute)}: ${figure(s.azimuth_deg)}°, ${figure(s.elevation_deg)}° high${before ? `, behind ${before.name}` : ''}`,
        };
      }),
  );
}

/** Each who stands there once, at their highest strip, where that is high enough to be named. */
function namesOf(blocked: SunPathChartProps['blocked']): SunPathChartProps['blocked'] {
  const tops = new Map<string, SunPathChartProps['blocked'][number]>();
  for (const b of blocked) if (b.to_deg > (tops.get(b.name)?.to_deg ?? 0)) tops.set(b.name, b);
  return [...tops.values()].filter((b) => b.to_deg >= NAMED_FROM_DEG && b.kind !== 'roof');
}

/** The highest of a line's spots; where it has none, one on the horizon at a bearing. */
const highestOf = (spots: readonly SunSpot[], azimuthDeg: number): SunSpot =>
  spots.reduce(
    (a, b) => (b.elevation_deg > a.elevation_deg ? b : a),
    spots[0] ?? { minute: 0, azimuth_deg: azimuthDeg, elevation_deg: 0 },
  );

/** Where a name over a top stands clear of the hours' names: on it, or to either side. */
function clearOf(topPx: number, hoursPx: readonly number[]): number {
  const room = (px: number) => Math.min(...hoursPx.map((h) => Math.abs(h - px)));
  return [0, 54, -54].map((d) => topPx + d).reduce((a, b) => (room(b) > room(a) ? b : a));
}

export function SunPathChart({
  days,
  ownDay,
  blocked,
  planeAzimuthDeg,
  planeSlopeDeg,
  southern,
  now,
  widthPx,
  heightPx,
}: SunPathChartProps) {
  const middle = southern ? 0 : 180;
  const x = scaleLinear([-HALF_WIDTH_DEG, HALF_WIDTH_DEG], [PAD.left, widthPx - PAD.right]);
  const y = scaleLinear([0, 90], [heightPx - PAD.bottom, PAD.top]);
  const at = (azimuthDeg: number) => x(fromMiddle(azimuthDeg, middle));
  const inside = (azimuthDeg: number) => Math.abs(fromMiddle(azimuthDeg, middle)) <= HALF_WIDTH_DEG;
  const line = (spots: readonly SunSpot[]) =>
    spots
      .filter((s) => inside(s.azimuth_deg) && s.elevation_deg >= 0)
      .map((s) => `${at(s.azimuth_deg).toFixed(1)},${y(s.elevation_deg).toFixed(1)}`)
      .join(' ');
  const hours = Array.from({ length: 24 }, (_, h) => ({
    hour: h,
    spots: days
      .map((d) => d.spots.find((s) => s.minute === h * 60))
      .filter((s): s is SunSpot => s !== undefined && inside(s.azimuth_deg)),
  })).filter(({ spots }) => spots.length > 1);
  const cell = (x(1) - x(0)) * 1.04;
  const bearings = Array.from({ length: 2 * HALF_WIDTH_DEG + 1 }, (_, i) => i - HALF_WIDTH_DEG);
  const behind = [
    `${x(-HALF_WIDTH_DEG)},${y(0)}`,
    ...bearings.map(
      (b) => `${x(b)},${y(planeRiseDeg(b + middle, planeAzimuthDeg, planeSlopeDeg))}`,
    ),
    `${x(HALF_WIDTH_DEG)},${y(0)}`,
  ].join(' ');
  const hourTops = hours.map(({ spots }) => at(highestOf(spots, middle).azimuth_deg));
  const names = clearLabels(
    namesOf(blocked.filter((b) => inside(b.azimuth_deg))).map((b) => ({
      text: b.name,
      x: at(b.azimuth_deg),
      y: y(b.to_deg) - 5,
    })),
    hours.map(({ hour, spots }) => {
      const top = highestOf(spots, middle);
      return { text: String(hour), x: at(top.azimuth_deg), y: y(top.elevation_deg) - 6 };
    }),
  );
  const firstDay = days[0];
  const highest = days.reduce((a, b) => (topOf(b) > topOf(a) ? b : a), days[0] ?? NO_DAY);
  return (
    <Chart
      widthPx={widthPx}
      heightPx={heightPx}
      label="Sun paths by bearing and height, with what stands before the sky"
      readings={sunReadings(ownDay ? [...days, ownDay] : days, blocked).flatMap(
        ({ azimuthDeg, elevationDeg, told }) =>
          inside(azimuthDeg) ? [{ xPx: at(azimuthDeg), yPx: y(elevationDeg), told }] : [],
      )}
    >
      <rect
        x={PAD.left}
        y={y(LOW_DEG)}
        width={widthPx - PAD.left - PAD.right}
        height={y(0) - y(LOW_DEG)}
        fill="var(--color-bar)"
      />
      {blocked
        .filter((b) => inside(b.azimuth_deg))
        .map((b) => (
          <rect
            key={`${b.azimuth_deg} ${b.from_deg}`}
            x={at(b.azimuth_deg) - cell / 2}
            y={y(b.to_deg)}
            width={cell}
            height={y(b.from_deg) - y(b.to_deg)}
            fill={KIND_FILL[b.kind] ?? 'var(--color-field)'}
            fillOpacity="0.55"
          >
            <title>{b.name}</title>
          </rect>
        ))}
      <polygon points={behind} fill="var(--color-rule)" fillOpacity="0.6" />
      {Object.entries(COMPASS)
        .map(([deg, name]) => ({ deg: Number(deg), name }))
        .filter(({ deg }) => inside(deg))
        .map(({ deg, name }) => (
          <g key={deg}>
            <line
              x1={at(deg)}
              x2={at(deg)}
              y1={y(0)}
              y2={y(90)}
              stroke="var(--color-rule)"
              strokeDasharray="2 4"
            />
            <text
              x={at(deg)}
              y={y(0) + 17}
              fontSize="13"
              textAnchor="middle"
              fill="var(--color-ink)"
            >
              {name} {deg}°
            </text>
          </g>
        ))}
      {[0, 30, 60, 90].map((deg) => (
        <text
          key={deg}
          x={PAD.left - 7}
          y={y(deg) + 4}
          fontSize="13"
          textAnchor="end"
          fill="var(--color-ink)"
        >
          {deg}°
        </text>
      ))}
      {hours.map(({ hour, spots }) => {
        const top = highestOf(spots, middle);
        return (
          <g key={hour}>
            <polyline
              points={line(spots)}
              fill="none"
              stroke="var(--color-field)"
              strokeWidth="1.2"
            />
            <text
              x={at(top.azimuth_deg)}
              y={y(top.elevation_deg) - 6}
              fontSize="12.5"
              textAnchor="middle"
              fill="var(--color-ink-2)"
            >
              {hour}
            </text>
          </g>
        );
      })}
      {days.map((d) => {
        const noon = highestOf(d.spots, middle);
        const end = d.day === firstDay?.day || d === days[days.length - 1];
        return (
          <g key={d.day}>
            <polyline
              points={line(d.spots)}
              fill="none"
              stroke="var(--color-copper)"
              strokeWidth={end ? 2.6 : 1.4}
            />
            <text
              x={
                d === highest ? clearOf(at(noon.azimuth_deg), hourTops) : at(noon.azimuth_deg) + 10
              }
              textAnchor={d === highest ? 'middle' : 'start'}
              y={y(noon.elevation_deg) + (d === highest ? -6 : 15)}
              fontSize="12.5"
              fill="var(--color-copper)"
              fontWeight={end ? 600 : 400}
            >
              {dayName(d.day)}
            </text>
          </g>
        );
      })}
      {ownDay && (
        <polyline
          points={line(ownDay.spots)}
          fill="none"
          stroke="var(--color-ink)"
          strokeWidth="2.4"
        />
      )}
      {now && inside(now.azimuthDeg) && (
        <circle
          cx={at(now.azimuthDeg)}
          cy={y(now.elevationDeg)}
          r="7"
          fill="var(--color-straw)"
          stroke="var(--color-ink)"
        />
      )}
      {names.map((b) => (
        <text
          key={b.text}
          x={b.x}
          y={b.y}
          fontSize="12.5"
          textAnchor="middle"
          fill="var(--color-ink)"
          stroke="var(--color-paper)"
          strokeWidth="3"
          paintOrder="stroke"
        >
          {b.text}
        </text>
      ))}
      <text
        x={x(0)}
        y={y(LOW_DEG) + 15}
        fontSize="12.5"
        textAnchor="middle"
        fill="var(--color-ink-2)"
      >
        below 10° little is gained
      </text>
      <line x1={PAD.left} x2={widthPx - PAD.right} y1={y(0)} y2={y(0)} stroke="var(--color-ink)" />
      <text
        x={(PAD.left + widthPx) / 2}
        y={heightPx - 4}
        fontSize="12.5"
        textAnchor="middle"
        fill="var(--color-ink-2)"
      >
        true bearing; hours in local standard time
      </text>
    </Chart>
  );
}
