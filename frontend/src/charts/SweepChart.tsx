/** Energy and clipping by loading: walls where a Stop stands, lines where other limits are. */
import { scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';
import { pressable } from '@/ui/pressable';
import { useWalk } from '@/ui/useWalk';
import { figure } from '@/units/format';
import { LevelLines } from './LevelLines';

export interface SweepDot {
  ratio: number;
  energyKwh: number | null;
  /** The same with the option's battery. */
  withBatteryKwh: number | null;
  clippedFrac: number | null;
  stopped: boolean;
  now: boolean;
}

export interface SweepMark {
  ratio: number;
  text: string;
  tone: 'wall' | 'wall-below' | 'line' | 'sweet';
}

interface SweepChartProps {
  dots: readonly SweepDot[];
  marks: readonly SweepMark[];
  chosen: number | null;
  onChoose: (index: number) => void;
  name: (index: number) => string;
  widthPx: number;
  heightPx: number;
}

const PAD = { left: 62, right: 52, top: 34, bottom: 34 };
const TONE = {
  wall: 'var(--color-stop)',
  'wall-below': 'var(--color-stop)',
  line: 'var(--color-warn)',
  sweet: 'var(--color-patina)',
};

export function SweepChart({
  dots,
  marks,
  chosen,
  onChoose,
  name,
  widthPx,
  heightPx,
}: SweepChartProps) {
  const walk = useWalk('chart');
  const known = dots.flatMap((d) =>
    d.energyKwh === null ? [] : [d.energyKwh, d.withBatteryKwh ?? d.energyKwh],
  );
  const least = Math.min(0.75, ...dots.map((d) => d.ratio - 0.05));
  const x = scaleLinear([least, 2.25], [PAD.left, widthPx - PAD.right]);
  const low = known.length > 0 ? Math.min(...known) : 0;
  const high = known.length > 0 ? Math.max(...known) : 1;
  const y = scaleLinear(
    [Math.max(0, low - (high - low) * 0.12), high + (high - low) * 0.06 + 1],
    [heightPx - PAD.bottom, PAD.top],
  );
  const mostClipped = Math.max(0.1, ...dots.map((d) => d.clippedFrac ?? 0));
  const c = scaleLinear([0, mostClipped * 100], [heightPx - PAD.bottom, PAD.top]);
  const legal = dots.filter((d) => d.energyKwh !== null);
  const energy = line<SweepDot>(
    (d) => x(d.ratio),
    (d) => y(d.energyKwh ?? 0),
  );
  const stored = legal.filter((d) => d.withBatteryKwh !== null);
  const withBattery = line<SweepDot>(
    (d) => x(d.ratio),
    (d) => y(d.withBatteryKwh ?? 0),
  );
  const lastStored = stored.at(-1);
  const clipped = line<SweepDot>(
    (d) => x(d.ratio),
    (d) => c((d.clippedFrac ?? 0) * 100),
  );
  // What is said of a wall stands inside it, what is said of a sweet spot before it.
  const onLeft = (mark: SweepMark) =>
    x(mark.ratio) > widthPx * 0.7 ||
    mark.tone === 'wall-below' ||
    (mark.tone === 'sweet' && x(mark.ratio) > widthPx * 0.25);
  const sweets = marks.filter((mark) => mark.tone === 'sweet');
  return (
    <svg
      {...walk}
      width={widthPx}
      height={heightPx}
      role="group"
      aria-roledescription="chart"
      aria-label="Energy and clipping by DC:AC"
    >
      <g fontSize="12.5" fill="var(--color-ink-2)">
        <LevelLines y={y} count={5} leftPx={PAD.left} rightPx={widthPx - PAD.right} name={figure} />
        {c.ticks(4).map((percent) => (
          <text
            key={percent}
            x={widthPx - PAD.right + 6}
            y={c(percent) + 4}
            fill="var(--color-copper)"
          >
            {percent} %
          </text>
        ))}
        {x.ticks(8).map((ratio) => (
          <text key={ratio} x={x(ratio)} y={heightPx - PAD.bottom + 15} textAnchor="middle">
            {figure(ratio, 1)}
          </text>
        ))}
        <text x={widthPx - PAD.right} y={heightPx - 4} textAnchor="end">
          DC:AC
        </text>
        <text x={6} y={14}>
          kWh
        </text>
        <text x={widthPx - 4} y={14} textAnchor="end" fill="var(--color-copper)">
          clipped
        </text>
      </g>
      {marks.map((mark, i) => (
        <g key={`${mark.tone} ${mark.text}`}>
          {mark.tone.startsWith('wall') && (
            <rect
              x={mark.tone === 'wall' ? x(mark.ratio) : PAD.left}
              y={PAD.top}
              width={Math.max(
                0,
                mark.tone === 'wall'
                  ? widthPx - PAD.right - x(mark.ratio)
                  : x(mark.ratio) - PAD.left,
              )}
              height={heightPx - PAD.top - PAD.bottom}
              fill="var(--color-stop)"
              opacity="0.08"
            />
          )}
          <line
            x1={x(mark.ratio)}
            x2={x(mark.ratio)}
            y1={PAD.top}
            y2={heightPx - PAD.bottom}
            stroke={TONE[mark.tone]}
            strokeWidth={mark.tone.startsWith('wall') ? 2 : 1.5}
            strokeDasharray={mark.tone.startsWith('wall') ? '' : '5 4'}
          />
          <text
            x={x(mark.ratio) + (onLeft(mark) ? -5 : 5)}
            y={
              mark.tone === 'sweet'
                ? heightPx - PAD.bottom - 12 - 16 * sweets.indexOf(mark)
                : PAD.top + 14 + i * 16
            }
            fontSize="12.5"
            fontWeight="600"
            fill={TONE[mark.tone]}
            stroke="var(--color-paper)"
            strokeWidth="4"
            paintOrder="stroke"
            textAnchor={onLeft(mark) ? 'end' : 'start'}
          >
            {mark.text}
          </text>
        </g>
      ))}
      <path
        d={clipped(legal) ?? ''}
        fill="none"
        stroke="var(--color-copper)"
        strokeWidth="1.5"
        strokeDasharray="3 3"
      />
      <path d={energy(legal) ?? ''} fill="none" stroke="var(--color-patina)" strokeWidth="2.5" />
      {lastStored && (
        <g>
          <path
            d={withBattery(stored) ?? ''}
            fill="none"
            stroke="var(--color-ink)"
            strokeWidth="1.5"
            strokeDasharray="9 3"
          />
          <text
            x={x(lastStored.ratio) + 5}
            y={y(lastStored.withBatteryKwh ?? 0) + 18}
            fontSize="12.5"
            fontWeight="600"
            fill="var(--color-ink)"
            stroke="var(--color-paper)"
            strokeWidth="4"
            paintOrder="stroke"
            textAnchor="end"
          >
            with the battery
          </text>
        </g>
      )}
      {dots.map((dot, i) => (
        <g
          key={dot.ratio}
          role="button"
          aria-label={name(i)}
          aria-pressed={chosen === i}
          className="cursor-pointer outline-none focus-visible:[&>circle]:stroke-copper"
          {...pressable(() => onChoose(i))}
        >
          <rect
            x={x(dot.ratio) - 7}
            y={PAD.top}
            width="14"
            height={heightPx - PAD.top - PAD.bottom + 6}
            fill="transparent"
          />
          <circle
            cx={x(dot.ratio)}
            cy={dot.energyKwh === null ? heightPx - PAD.bottom - 5 : y(dot.energyKwh)}
            r={dot.now || chosen === i ? 6 : 3.5}
            fill={
              dot.stopped
                ? 'var(--color-stop)'
                : dot.now
                  ? 'var(--color-ink)'
                  : 'var(--color-patina)'
            }
            stroke={chosen === i ? 'var(--color-copper)' : 'var(--color-sheet)'}
            strokeWidth="2"
          />
        </g>
      ))}
    </svg>
  );
}
