/** The sun's paths from above: the rim is the horizon, the middle overhead, north up. */
import { dayName } from '@/units/format';
import { Chart } from './Chart';
import { KIND_FILL, type SunPathData, sunReadings } from './SunPathChart';

interface SunPlanChartProps extends SunPathData {
  now: { azimuthDeg: number; elevationDeg: number } | null;
  widthPx: number;
  heightPx: number;
}

const LOW_DEG = 10;
const WORDS = [
  ['N', 0],
  ['E', 90],
  ['S', 180],
  ['W', 270],
] as const;

export function SunPlanChart({
  days,
  ownDay,
  blocked,
  planeAzimuthDeg,
  now,
  widthPx,
  heightPx,
}: SunPlanChartProps) {
  const radius = Math.min(widthPx, heightPx) / 2 - 26;
  const [cx, cy] = [widthPx / 2, heightPx / 2];
  const at = (azimuthDeg: number, elevationDeg: number): [number, number] => {
    const out = radius * (1 - elevationDeg / 90);
    const turn = (azimuthDeg * Math.PI) / 180;
    return [cx + out * Math.sin(turn), cy - out * Math.cos(turn)];
  };
  const points = (spots: SunPathData['days'][number]['spots']) =>
    spots
      .filter((s) => s.elevation_deg >= 0)
      .map((s) =>
        at(s.azimuth_deg, s.elevation_deg)
          .map((v) => v.toFixed(1))
          .join(','),
      )
      .join(' ');
  const cell = (b: SunPathData['blocked'][number]) =>
    [
      at(b.azimuth_deg - 0.52, b.from_deg),
      at(b.azimuth_deg + 0.52, b.from_deg),
      at(b.azimuth_deg + 0.52, b.to_deg),
      at(b.azimuth_deg - 0.52, b.to_deg),
    ]
      .map((p) => p.map((v) => v.toFixed(1)).join(','))
      .join(' ');
  const hours = Array.from({ length: 24 }, (_, h) => ({
    hour: h,
    spots: days.flatMap((d) => d.spots.filter((s) => s.minute === h * 60)),
  })).filter(({ spots }) => spots.length > 1);
  const facing = at(planeAzimuthDeg, 0);
  const sun = now && at(now.azimuthDeg, now.elevationDeg);
  return (
    <Chart
      label="Sun paths from above, north up"
      widthPx={widthPx}
      heightPx={heightPx}
      readings={sunReadings(ownDay ? [...days, ownDay] : days, blocked).map((r) => {
        const [xPx, yPx] = at(r.azimuthDeg, r.elevationDeg);
        return { xPx, yPx, told: r.told };
      })}
    >
      <circle cx={cx} cy={cy} r={radius} fill="var(--color-bar)" stroke="var(--color-ink)" />
      <circle cx={cx} cy={cy} r={radius * (1 - LOW_DEG / 90)} fill="var(--color-paper)" />
      {blocked.map((b) => (
        <polygon
          key={`${b.azimuth_deg} ${b.from_deg}`}
          points={cell(b)}
          fill={KIND_FILL[b.kind] ?? 'var(--color-field)'}
          fillOpacity="0.55"
          shapeRendering="crispEdges"
        >
          <title>{b.name}</title>
        </polygon>
      ))}
      {[30, 60].map((deg) => (
        <g key={deg}>
          <circle
            cx={cx}
            cy={cy}
            r={radius * (1 - deg / 90)}
            fill="none"
            stroke="var(--color-rule)"
            strokeDasharray="2 4"
          />
          <text
            x={cx + 4}
            y={cy + radius * (1 - deg / 90) - 3}
            fontSize="12"
            fill="var(--color-ink-2)"
          >
            {deg}°
          </text>
        </g>
      ))}
      <line
        x1={cx}
        y1={cy}
        x2={facing[0]}
        y2={facing[1]}
        stroke="var(--color-field)"
        strokeDasharray="6 4"
      />
      {hours.map(({ hour, spots }) => (
        <g key={hour}>
          <polyline
            points={points(spots)}
            fill="none"
            stroke="var(--color-field)"
            strokeWidth="1.2"
          />
          <HourWord hour={hour} at={at(...highest(spots))} />
        </g>
      ))}
      {days.map((d, i) => {
        const end = i === 0 || i === days.length - 1;
        return (
          <polyline
            key={d.day}
            points={points(d.spots)}
            fill="none"
            stroke="var(--color-copper)"
            strokeWidth={end ? 2.6 : 1.4}
          >
            <title>{dayName(d.day)}</title>
          </polyline>
        );
      })}
      {ownDay && (
        <polyline
          points={points(ownDay.spots)}
          fill="none"
          stroke="var(--color-ink)"
          strokeWidth="2.4"
        />
      )}
      {sun && (
        <circle cx={sun[0]} cy={sun[1]} r="7" fill="var(--color-straw)" stroke="var(--color-ink)" />
      )}
      {WORDS.map(([word, deg]) => {
        const [x, y] = at(deg, -7);
        return (
          <text key={word} x={x} y={y + 5} fontSize="14" fontWeight="600" textAnchor="middle">
            {word}
          </text>
        );
      })}
    </Chart>
  );
}

function highest(spots: SunPathData['days'][number]['spots']): [number, number] {
  const top = spots.reduce((a, b) => (b.elevation_deg > a.elevation_deg ? b : a));
  return [top.azimuth_deg, top.elevation_deg];
}

function HourWord({ hour, at }: { hour: number; at: [number, number] }) {
  return (
    <text
      x={at[0]}
      y={at[1] - 5}
      fontSize="12"
      textAnchor="middle"
      fill="var(--color-ink-2)"
      stroke="var(--color-paper)"
      strokeWidth="3"
      paintOrder="stroke"
    >
      {hour}
    </text>
  );
}
