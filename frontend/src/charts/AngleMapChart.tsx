/** Tilt against azimuth: the light behind the glass as a share of the best, planes marked. */
import { scaleLinear } from 'd3-scale';
import { figure, taken } from '@/units/format';
import { Chart } from './Chart';

export interface MarkedPlane {
  name: string;
  tiltDeg: number;
  azimuthDeg: number;
  lossFrac: number;
}

interface AngleMapChartProps {
  tiltsDeg: readonly number[];
  azimuthsDeg: readonly number[];
  values: readonly (readonly number[])[];
  best: { tiltDeg: number; azimuthDeg: number };
  planes: readonly MarkedPlane[];
  widthPx: number;
  heightPx: number;
}

const PAD = { left: 44, right: 12, top: 10, bottom: 36 };
// Each shade is so much of the best; the first is the best itself.
const SHADES = [
  { from: 0.98, colour: '#1f6f63' },
  { from: 0.95, colour: '#3f8a7b' },
  { from: 0.9, colour: '#68a596' },
  { from: 0.8, colour: '#9cc4b8' },
  { from: 0.7, colour: '#c5dcd4' },
  { from: 0.5, colour: '#e3ece6' },
  { from: 0, colour: '#f4f1ea' },
];
const COMPASS = ['N', 'NE', 'E', 'SE', 'S', 'SW', 'W', 'NW', 'N'];

export const shadeOf = (frac: number) =>
  SHADES.find((s) => frac >= s.from)?.colour ?? SHADES[0]?.colour ?? '';

const LABEL_PX = 16;
/** About what a letter of a label is wide. */
const LETTER_PX = 6.8;

/** Whether a label stands right of its dot: away from the best, unless there is no room there. */
function standsRight(outward: boolean, dotPx: number, label: string, widthPx: number): boolean {
  const wide = label.length * LETTER_PX + 11;
  return outward ? dotPx + wide < widthPx : dotPx - wide < PAD.left;
}

/** Heights of labels, moved down where one would stand on another. */
export function apart(wantedPx: readonly number[]): number[] {
  const placed: number[] = [];
  for (const wanted of wantedPx) {
    let at = wanted;
    while (placed.some((other) => Math.abs(other - at) < LABEL_PX)) at += 1;
    placed.push(at);
  }
  return placed;
}

export function AngleMapChart({
  tiltsDeg,
  azimuthsDeg,
  values,
  best,
  planes,
  widthPx,
  heightPx,
}: AngleMapChartProps) {
  const x = scaleLinear([-5, 365], [PAD.left, widthPx - PAD.right]);
  const y = scaleLinear([-2.5, 92.5], [heightPx - PAD.bottom, PAD.top]);
  const top = Math.max(...values.flat());
  const cellW = Math.abs(x(10) - x(0));
  const cellH = Math.abs(y(5) - y(0));
  const labelsPx = apart(planes.map((p) => y(p.tiltDeg) - 8));
  return (
    <Chart
      walk="drawing"
      widthPx={widthPx}
      heightPx={heightPx}
      label={`Best at ${best.tiltDeg}° of tilt facing ${best.azimuthDeg}°`}
      readings={[
        ...planes.map((p) => ({
          xPx: x(p.azimuthDeg),
          yPx: y(p.tiltDeg),
          told: `${p.name}: ${figure(p.tiltDeg)}° tilt, ${figure(p.azimuthDeg)}°: ${taken(p.lossFrac * 100, 1)} %`,
        })),
        ...tiltsDeg.flatMap((tilt, i) =>
          azimuthsDeg.flatMap((azimuth, k) =>
            tilt % 15 === 0 && azimuth % 30 === 0
              ? [
                  {
                    xPx: x(azimuth),
                    yPx: y(tilt),
                    told: `${figure(tilt)}° tilt, ${figure(azimuth)}°: ${figure(((values[i]?.[k] ?? 0) / top) * 100, 1)} % of the best`,
                  },
                ]
              : [],
          ),
        ),
      ]}
    >
      {values.map((row, i) =>
        row.map((value, k) => (
          <rect
            key={`${tiltsDeg[i]} ${azimuthsDeg[k]}`}
            x={x(azimuthsDeg[k] ?? 0) - cellW / 2}
            y={y(tiltsDeg[i] ?? 0) - cellH / 2}
            width={cellW + 0.5}
            height={cellH + 0.5}
            fill={shadeOf(value / top)}
          >
            <title>
              {figure(tiltsDeg[i] ?? 0)}° tilt, {figure(azimuthsDeg[k] ?? 0)}°:{' '}
              {figure((value / top) * 100, 1)} % of the best
            </title>
          </rect>
        )),
      )}
      <g fontSize="12.5" fill="var(--color-ink-2)">
        {COMPASS.map((word, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: north stands at both ends
          <text key={i} x={x(i * 45)} y={heightPx - PAD.bottom + 15} textAnchor="middle">
            {word}
          </text>
        ))}
        {[0, 15, 30, 45, 60, 75, 90].map((tilt) => (
          <text key={tilt} x={PAD.left - 6} y={y(tilt) + 4} textAnchor="end">
            {tilt}°
          </text>
        ))}
        <text x={widthPx - PAD.right} y={heightPx - 4} textAnchor="end">
          faces, by the compass; upwards the tilt of the glass
        </text>
      </g>
      <path
        d={`M${x(best.azimuthDeg) - 7} ${y(best.tiltDeg)}h14M${x(best.azimuthDeg)} ${y(best.tiltDeg) - 7}v14`}
        stroke="var(--color-sheet)"
        strokeWidth="2.5"
      />
      {planes.map((p, i) => {
        const label = `${p.name} ${taken(p.lossFrac * 100, 1)} %`;
        const right = standsRight(p.azimuthDeg > best.azimuthDeg, x(p.azimuthDeg), label, widthPx);
        return (
          <g key={p.name}>
            <circle
              cx={x(p.azimuthDeg)}
              cy={y(p.tiltDeg)}
              r="6"
              fill="var(--color-copper)"
              stroke="var(--color-sheet)"
              strokeWidth="2"
            />
            <text
              x={x(p.azimuthDeg) + (right ? 11 : -11)}
              y={labelsPx[i]}
              fontSize="13"
              fontWeight="600"
              textAnchor={right ? 'start' : 'end'}
              stroke="var(--color-sheet)"
              strokeWidth="4"
              paintOrder="stroke"
            >
              {label}
            </text>
          </g>
        );
      })}
    </Chart>
  );
}

export function AngleLegend() {
  return (
    <ul className="flex flex-wrap gap-x-3 text-xs text-ink-2">
      {SHADES.map((s, i) => (
        <li key={s.from} className="flex items-center gap-1">
          <span
            aria-hidden="true"
            className="inline-block h-3 w-3 border border-rule"
            style={{ background: s.colour }}
          />
          {i === SHADES.length - 1 ? 'less' : `${figure(s.from * 100)} % and up`}
        </li>
      ))}
    </ul>
  );
}
