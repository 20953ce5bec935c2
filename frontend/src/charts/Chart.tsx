/**
 * The frame of a chart: drawn for the eye, and read point by point. Its readings are one tab stop
 * with arrows inside; the one in focus or nearest the pointer is told beside its point.
 */
import { type PointerEvent, type ReactNode, useState } from 'react';
import { useWalk, type Walk } from '@/ui/useWalk';

/** A point of a chart with all that is read there. */
export interface Reading {
  xPx: number;
  yPx: number;
  told: string;
}

interface ChartProps {
  label: string;
  widthPx: number;
  heightPx: number;
  readings: readonly Reading[];
  className?: string;
  /** How arrows go from reading to reading. */
  walk?: Walk;
  onClick?: (xPx: number) => void;
  children: ReactNode;
}

/** About how wide a letter of a reading is. */
const LETTER_PX = 6.4;
const REACH_PX = 26;

export function Chart({
  label,
  widthPx,
  heightPx,
  readings,
  className = '',
  walk = 'chart',
  onClick,
  children,
}: ChartProps) {
  const walked = useWalk(walk);
  const [at, setAt] = useState<number | null>(null);
  const read = at === null ? undefined : readings[at];
  const spotOf = (event: { clientX: number; clientY: number; currentTarget: Element }) => {
    const box = event.currentTarget.getBoundingClientRect();
    return { xPx: event.clientX - box.left, yPx: event.clientY - box.top };
  };
  const look = (event: PointerEvent<SVGSVGElement>) => {
    const { xPx, yPx } = spotOf(event);
    const farPx = (r: Reading) => Math.hypot(r.xPx - xPx, (r.yPx - yPx) / 4);
    const nearest = readings.reduce((best, r, i) => {
      const other = readings[best];
      return other && farPx(other) <= farPx(r) ? best : i;
    }, 0);
    const found = readings[nearest];
    setAt(found && farPx(found) < REACH_PX ? nearest : null);
  };
  return (
    <svg
      {...walked}
      width={widthPx}
      height={heightPx}
      role="group"
      aria-roledescription="chart"
      aria-label={label}
      className={className}
      onPointerMove={look}
      onPointerLeave={() => setAt(null)}
      {...(onClick ? { onClick: (event) => onClick(spotOf(event).xPx) } : {})}
    >
      <g aria-hidden="true">{children}</g>
      {readings.map((reading, i) => (
        <circle
          // biome-ignore lint/suspicious/noArrayIndexKey: a reading is named by its place
          key={i}
          data-stop=""
          tabIndex={-1}
          role="img"
          aria-label={reading.told}
          cx={reading.xPx}
          cy={reading.yPx}
          r="6"
          fill="none"
          stroke={i === at ? 'var(--color-copper)' : 'none'}
          strokeWidth="2"
          pointerEvents="none"
          className="outline-none"
          onFocus={() => setAt(i)}
          onBlur={() => setAt(null)}
        />
      ))}
      {read && <Readout reading={read} widthPx={widthPx} heightPx={heightPx} />}
    </svg>
  );
}

interface ReadoutProps {
  reading: Reading;
  widthPx: number;
  heightPx: number;
}

/** What is read at a point, over everything, inside the chart. */
function Readout({ reading, widthPx, heightPx }: ReadoutProps) {
  const lines = linesOf(reading.told, Math.max(12, Math.floor((widthPx - 24) / LETTER_PX)));
  const wide = Math.max(...lines.map((l) => l.length)) * LETTER_PX + 14;
  const high = lines.length * 16 + 6;
  const left = Math.min(Math.max(reading.xPx - wide / 2, 1), Math.max(1, widthPx - wide - 1));
  const over = reading.yPx - high - 10;
  const top = over >= 1 ? over : Math.min(reading.yPx + 12, Math.max(1, heightPx - high - 1));
  return (
    <g aria-hidden="true" pointerEvents="none">
      <rect x={left} y={top} width={wide} height={high} rx="4" fill="var(--color-ink)" />
      {lines.map((text, i) => (
        <text
          key={text}
          x={left + 7}
          y={top + 15 + i * 16}
          fontSize="12.5"
          fill="var(--color-sheet)"
        >
          {text}
        </text>
      ))}
    </g>
  );
}

/** Words in lines of at most so many letters. */
export function linesOf(told: string, letters: number): string[] {
  const lines: string[] = [];
  for (const word of told.split(' ')) {
    const last = lines.at(-1);
    if (last !== undefined && last.length + 1 + word.length <= letters)
      lines[lines.length - 1] = `${last} ${word}`;
    else lines.push(word);
  }
  return lines;
}
