/** A day's power in equal steps with the inverter's limit as a line that can be dragged. */
import { max } from 'd3-array';
import { scaleLinear } from 'd3-scale';
import { area, curveMonotoneX, line } from 'd3-shape';
import { type PointerEvent, useState } from 'react';
import { useSize } from '@/ui/useSize';
import { figure } from '@/units/format';
import { clippedAt, type LimitPoint } from './LimitCurve';

export interface DaySeries {
  title: string;
  dcKw: number[];
  unlimitedKw: number[];
  /** The trackers' DC, lowest first; they add up to the whole. */
  trackersKw: number[][];
  /** What each limit would clip that day, from none on. */
  limits: LimitPoint[];
}

interface DayChartProps {
  day: DaySeries;
  limitKw: number;
  datasheetLimitKw: number;
  onLimit: (limitKw: number) => void;
}

const NARROW_PX = 480;
/** About how wide the DC curve's name is, with its gap. */
const DC_LABEL_PX = 112;
const PAD = { left: 52, right: 84, top: 34, bottom: 44 };
const HOURS = [0, 3, 6, 9, 12, 15, 18, 21, 24];

interface HourPoint {
  hour: number;
  kw: number;
}

export function DayChart({ day, limitKw, datasheetLimitKw, onLimit }: DayChartProps) {
  const [size, measure] = useSize();
  return (
    <div ref={measure} className="relative min-h-0 grow">
      {size && (
        <Drawn
          day={day}
          limitKw={limitKw}
          datasheetLimitKw={datasheetLimitKw}
          onLimit={onLimit}
          widthPx={size.widthPx}
          heightPx={size.heightPx}
        />
      )}
    </div>
  );
}

function Drawn({
  day,
  limitKw,
  datasheetLimitKw,
  onLimit,
  widthPx,
  heightPx,
}: DayChartProps & { widthPx: number; heightPx: number }) {
  const [dragging, setDragging] = useState(false);
  const stepH = 24 / day.dcKw.length;
  const narrow = widthPx < NARROW_PX;
  const highest = max([...day.dcKw, datasheetLimitKw, limitKw]) ?? 1;
  const x = scaleLinear([0, 24], [PAD.left, widthPx - PAD.right]);
  const y = scaleLinear([0, highest * 1.06], [heightPx - PAD.bottom, PAD.top]).nice();
  const at = (kw: number[]): HourPoint[] =>
    kw.map((v, i) => ({ hour: (i + 0.5) * stepH, kw: Math.max(0, v) }));
  const unlimited = at(day.unlimitedKw);
  const curve = line<HourPoint>(
    (p) => x(p.hour),
    (p) => y(p.kw),
  ).curve(curveMonotoneX);
  const under = area<HourPoint>(
    (p) => x(p.hour),
    () => y(0),
    (p) => y(p.kw),
  ).curve(curveMonotoneX);
  const daily = (of: (kw: number) => number) =>
    day.unlimitedKw.reduce((sum, kw) => sum + of(kw), 0) * stepH;
  // What is cut within the hours is known to the server; the curve shows their means.
  const { clippedKwh } = clippedAt(day.limits, limitKw);
  const deliveredKwh = daily((kw) => kw) - clippedKwh;
  const cutHours = unlimited.filter((p) => p.kw > limitKw).map((p) => p.hour);
  const middle = cutHours.length ? ((cutHours[0] ?? 12) + (cutHours.at(-1) ?? 12)) / 2 : 12;
  const peakKw = max(day.unlimitedKw) ?? 0;
  const roomPx = y(limitKw) - y(peakKw);
  const set = (kw: number) => onLimit(Math.max(0.1, Math.min(y.domain()[1] ?? 1, kw)));
  const drag = (event: PointerEvent<SVGGElement>) => {
    if (!dragging) return;
    const box = event.currentTarget.ownerSVGElement?.getBoundingClientRect();
    if (box) set(Math.round(y.invert(event.clientY - box.top) * 20) / 20);
  };
  const moved = Math.abs(limitKw - datasheetLimitKw) > 1e-6;
  return (
    <svg
      width={widthPx}
      height={heightPx}
      className="absolute inset-0 touch-none"
      role="group"
      aria-label={`${day.title}: power through the day`}
    >
      <g fontSize="13" fill="var(--color-ink-2)">
        {y.ticks(6).map((kw) => (
          <g key={kw}>
            <line
              x1={PAD.left}
              x2={widthPx - PAD.right}
              y1={y(kw)}
              y2={y(kw)}
              stroke="var(--color-rule)"
            />
            <text x={PAD.left - 8} y={y(kw) + 4} textAnchor="end">
              {kw}
            </text>
          </g>
        ))}
        <text x={PAD.left - 8} y={PAD.top - 14} textAnchor="end">
          kW
        </text>
        {HOURS.map((hour) => (
          <text key={hour} x={x(hour)} y={heightPx - PAD.bottom + 18} textAnchor="middle">
            {hour}:00
          </text>
        ))}
        <text
          x={narrow ? 4 : widthPx - PAD.right}
          y={heightPx - 8}
          textAnchor={narrow ? 'start' : 'end'}
        >
          local standard time, hour means; minutes within them are cut too
        </text>
      </g>
      <defs>
        <clipPath id="below-limit">
          <rect x={PAD.left} y={y(limitKw)} width={widthPx} height={heightPx} />
        </clipPath>
        <clipPath id="above-limit">
          <rect x={PAD.left} y={0} width={widthPx} height={Math.max(0, y(limitKw))} />
        </clipPath>
      </defs>
      <path
        d={under(unlimited) ?? ''}
        fill="var(--color-straw-wash)"
        clipPath="url(#below-limit)"
      />
      <path d={under(unlimited) ?? ''} fill="var(--color-stop-wash)" clipPath="url(#above-limit)" />
      {stackOf(day.trackersKw).map((upTo, i) => (
        <path
          // biome-ignore lint/suspicious/noArrayIndexKey: trackers have no other name
          key={i}
          d={curve(at(upTo)) ?? ''}
          fill="none"
          stroke="var(--color-field)"
          strokeWidth="1"
        />
      ))}
      <path
        d={curve(at(day.dcKw)) ?? ''}
        fill="none"
        stroke="var(--color-ink-2)"
        strokeDasharray="4 3"
      />
      <path
        d={curve(unlimited) ?? ''}
        fill="none"
        stroke="var(--color-ink)"
        strokeWidth="2"
        clipPath="url(#below-limit)"
      />
      <DcLabel day={day} stepH={stepH} x={x} y={y} />
      <text
        x={x(12)}
        y={y(Math.min(limitKw, highest) * 0.45)}
        fontSize="14"
        fontWeight="600"
        textAnchor="middle"
        fill="var(--color-ink)"
      >
        {figure(deliveredKwh, 1)} kWh of AC
      </text>
      {clippedKwh > 0.005 && (
        <text
          x={x(middle)}
          y={roomPx > 34 ? y(limitKw) - 10 : y(limitKw) + 18}
          fontSize="14"
          fontWeight="600"
          textAnchor="middle"
          fill="var(--color-stop)"
        >
          {figure(clippedKwh, 1)} kWh clipped
        </text>
      )}
      {moved && (
        <line
          x1={PAD.left}
          x2={widthPx - PAD.right}
          y1={y(datasheetLimitKw)}
          y2={y(datasheetLimitKw)}
          stroke="var(--color-stop)"
          strokeDasharray="3 4"
        />
      )}
      <g
        role="slider"
        tabIndex={0}
        aria-label="AC limit to try"
        aria-valuemin={0}
        aria-valuemax={y.domain()[1]}
        aria-valuenow={limitKw}
        aria-valuetext={`${figure(limitKw, 2)} kW`}
        className="cursor-ns-resize"
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          setDragging(true);
        }}
        onPointerMove={drag}
        onPointerUp={() => setDragging(false)}
        onPointerCancel={() => setDragging(false)}
        onKeyDown={(event) => {
          const by = { ArrowUp: 1, ArrowDown: -1 }[event.key];
          if (!by) return;
          event.preventDefault();
          set(limitKw + by * (event.shiftKey ? 0.01 : 0.1));
        }}
      >
        <rect
          x={PAD.left}
          y={y(limitKw) - 12}
          width={widthPx - PAD.left - 8}
          height="24"
          fill="transparent"
        />
        <line
          x1={PAD.left}
          x2={widthPx - PAD.right + 6}
          y1={y(limitKw)}
          y2={y(limitKw)}
          stroke="var(--color-stop)"
          strokeWidth="2"
        />
        <rect
          x={widthPx - PAD.right + 6}
          y={y(limitKw) - 13}
          width="70"
          height="26"
          rx="5"
          fill="var(--color-stop)"
        />
        <text
          x={widthPx - PAD.right + 41}
          y={y(limitKw) + 5}
          fontSize="14"
          fontWeight="600"
          textAnchor="middle"
          fill="var(--color-sheet)"
        >
          {figure(limitKw, 2)} kW
        </text>
      </g>
      <text
        x={widthPx - 8}
        y={y(limitKw) - 18}
        fontSize="12.5"
        fill="var(--color-stop)"
        textAnchor="end"
      >
        {moved ? 'limit tried' : 'drag to try another limit'}
      </text>
    </svg>
  );
}

/** Each tracker on those before it; the last would be the whole, and is drawn as that. */
export function stackOf(trackersKw: number[][]): number[][] {
  const used = trackersKw.filter((kw) => kw.some((v) => v > 0));
  return used
    .slice(0, -1)
    .map((_, i) => (used[0] ?? []).map((_, h) => sumTo(used.slice(0, i + 1), h)));
}

const sumTo = (series: number[][], hour: number) =>
  series.reduce((sum, kw) => sum + (kw[hour] ?? 0), 0);

interface DcLabelProps {
  day: DaySeries;
  stepH: number;
  x: (hour: number) => number;
  y: (kw: number) => number;
}

/** Names the DC curve on its morning side, on the evening's where the chart is too narrow for that. */
function DcLabel({ day, stepH, x, y }: DcLabelProps) {
  const peak = max(day.dcKw) ?? 0;
  const morning = day.dcKw.findIndex((kw) => kw > peak * 0.3);
  if (peak <= 0 || morning < 0) return null;
  const late = x((morning + 0.5) * stepH) < PAD.left + DC_LABEL_PX;
  const hour = late ? day.dcKw.findLastIndex((kw) => kw > peak * 0.3) : morning;
  return (
    <text
      x={x((hour + 0.5) * stepH) + (late ? 10 : -10)}
      y={y(day.dcKw[hour] ?? 0)}
      fontSize="12.5"
      fill="var(--color-ink-2)"
      textAnchor={late ? 'start' : 'end'}
    >
      DC from the array
    </text>
  );
}
