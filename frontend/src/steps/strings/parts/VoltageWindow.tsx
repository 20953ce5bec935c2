/** From 0 to past the input limit: tracking range filled, the string's span a frame. */
import type { Schemas } from '@/api/client';
import { figure } from '@/units/format';

const WIDTH_PX = 244;
/** What “cold: not checked” takes, and half a figure before it. */
const NOT_CHECKED_PX = 116;
const BAR = { top: 20, height: 17 };

export function VoltageWindow({ tracker }: { tracker: Schemas['TrackerView'] }) {
  const { v_hot_v: hot, v_cold_v: cold, v_limit_v: limit } = tracker;
  const most = Math.max(limit, cold ?? 0, tracker.v_max_v) * 1.06;
  const x = (volts: number) => (volts / most) * WIDTH_PX;
  const over = cold !== null && cold > limit * (1 + 1e-9);
  const colour = over ? 'var(--color-stop)' : 'var(--color-ink)';
  const right = cold ?? hot;
  const close = hot !== null && cold !== null && x(cold) - x(hot) < 62;
  // Left of the words on the cold end, wherever the bar is.
  const hotPx =
    hot === null ? 0 : Math.min(x(hot), cold === null ? x(limit) - NOT_CHECKED_PX : WIDTH_PX);
  const describe = `Hottest Vmp ${hot === null ? 'not known' : `${figure(hot)} V`}, coldest Voc ${
    cold === null ? 'not checked' : `${figure(cold)} V`
  }, tracking ${tracker.v_min_v} to ${tracker.v_max_v} V, limit ${limit} V`;
  return (
    <svg width={WIDTH_PX} height="62" role="img" aria-label={describe} className="my-1 block">
      <rect x="0" y={BAR.top} width={WIDTH_PX} height={BAR.height} rx="2" fill="var(--color-bar)" />
      <rect
        x={x(tracker.v_min_v)}
        y={BAR.top}
        width={x(tracker.v_max_v - tracker.v_min_v)}
        height={BAR.height}
        fill="var(--color-tracking)"
      />
      <line
        x1={x(tracker.v_start_v)}
        x2={x(tracker.v_start_v)}
        y1={BAR.top - 3}
        y2={BAR.top + BAR.height + 3}
        stroke="var(--color-patina)"
        strokeWidth="1.5"
      />
      {hot !== null && right !== null && (
        <rect
          x={x(hot)}
          y={BAR.top - 3}
          width={Math.max(x(right) - x(hot), 2)}
          height={BAR.height + 6}
          rx="2"
          fill="none"
          stroke={colour}
          strokeWidth="2"
          strokeDasharray={cold === null ? '4 3' : undefined}
        />
      )}
      <line
        x1={x(limit)}
        x2={x(limit)}
        y1={BAR.top - 6}
        y2={BAR.top + BAR.height + 6}
        stroke="var(--color-stop)"
        strokeWidth="2.5"
      />
      <g fontSize="12.5" fontWeight="600">
        {hot !== null && (
          <text x={hotPx - (close ? 4 : 0)} y="13" textAnchor={close ? 'end' : 'middle'}>
            {figure(hot)}
          </text>
        )}
        {cold === null ? (
          <text x={x(limit)} y="13" textAnchor="end" fill="var(--color-warn)">
            cold: not checked
          </text>
        ) : (
          <text x={Math.min(x(cold), WIDTH_PX - 14)} y="13" textAnchor="middle" fill={colour}>
            {figure(cold)}
          </text>
        )}
      </g>
      <g fontSize="12.5" fill="var(--color-ink-2)">
        <text x={x(tracker.v_min_v)} y="57">
          tracks {tracker.v_min_v} to {tracker.v_max_v} V
        </text>
        <text x={Math.min(x(limit) + 2, WIDTH_PX)} y="57" textAnchor="end" fill="var(--color-stop)">
          limit {limit}
        </text>
      </g>
    </svg>
  );
}
