/** Ceilings as lanes of modules, the target as a line that can be dragged across them. */
import { scaleLinear } from 'd3-scale';
import { type KeyboardEvent, type PointerEvent, useCallback, useRef, useState } from 'react';
import { pressable } from '@/ui/pressable';
import { useWalk } from '@/ui/useWalk';

export interface Lane {
  key: string;
  title: string;
  /** Most modules; null when a number is missing. */
  modules: number | null;
  reason: string;
  binds: boolean;
}

interface LadderProps {
  lanes: Lane[];
  target: number | null;
  now: number;
  widthPx: number;
  openKey: string;
  onOpen: (key: string) => void;
  /** Called with the modules the line was left at. */
  onTarget?: ((modules: number) => void) | undefined;
}

const LEFT = 106;
const RIGHT = 44;
const LANE = 27;
const HEAD = 40;

export function Ladder({ lanes, target, now, widthPx, openKey, onOpen, onTarget }: LadderProps) {
  const [dragged, setDragged] = useState<number | null>(null);
  const svg = useRef<SVGSVGElement>(null);
  const { ref: walkRef, ...walk } = useWalk('chart');
  const ref = useCallback(
    (element: SVGSVGElement | null) => {
      svg.current = element;
      return walkRef(element);
    },
    [walkRef],
  );
  const shown = dragged ?? target;
  const near = Math.max(target ?? 0, now, 10) * 1.5;
  const end = Math.max(near, ...lanes.map((l) => Math.min(l.modules ?? 0, near)));
  const x = scaleLinear([0, end], [LEFT, widthPx - RIGHT]).clamp(true);
  const heightPx = HEAD + Math.max(1, lanes.length) * LANE + 20;

  const moduleAt = (event: PointerEvent) => {
    const left = svg.current?.getBoundingClientRect().left ?? 0;
    return Math.max(1, Math.round(x.invert(event.clientX - left)));
  };
  const finish = () => {
    if (dragged !== null && dragged !== target) onTarget?.(dragged);
    setDragged(null);
  };
  const nudge = (event: KeyboardEvent) => {
    const way = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[event.key];
    if (event.key === 'Escape') setDragged(null);
    if (!way || target === null) return;
    event.preventDefault();
    onTarget?.(Math.max(1, target + way * (event.shiftKey ? 5 : 1)));
  };

  return (
    <svg
      {...walk}
      ref={ref}
      width={widthPx}
      height={heightPx}
      role="group"
      aria-label="Ceilings in modules"
      fontSize="12.5"
      className="block touch-none"
    >
      {lanes.map((lane, i) => (
        <LaneRow
          key={lane.key}
          lane={lane}
          topPx={HEAD + i * LANE}
          x={x}
          endPx={widthPx - RIGHT}
          widthPx={widthPx}
          beyond={lane.modules !== null && lane.modules > end}
          open={openKey === lane.key}
          onOpen={() => onOpen(lane.key)}
        />
      ))}
      {now > 0 && (
        <g className="pointer-events-none">
          <line x1={x(now)} x2={x(now)} y1={HEAD - 4} y2={heightPx - 18} className="stroke-ink" />
          <text x={x(now)} y={heightPx - 5} textAnchor="middle" className="fill-ink">
            {now} in this design
          </text>
        </g>
      )}
      {shown !== null && (
        <g
          role="slider"
          tabIndex={onTarget ? 0 : -1}
          aria-label="Target in modules"
          aria-valuenow={shown}
          aria-valuemin={1}
          aria-valuemax={Math.round(end)}
          aria-valuetext={`${shown} modules`}
          className={onTarget ? 'cursor-ew-resize' : ''}
          onKeyDown={nudge}
          onPointerDown={(event) => {
            if (!onTarget) return;
            event.currentTarget.setPointerCapture(event.pointerId);
            setDragged(target);
          }}
          onPointerMove={(event) => dragged !== null && setDragged(moduleAt(event))}
          onPointerUp={finish}
          onPointerCancel={() => setDragged(null)}
        >
          <rect x={x(shown) - 12} y={0} width={24} height={heightPx - 16} fill="transparent" />
          <line
            x1={x(shown)}
            x2={x(shown)}
            y1={20}
            y2={heightPx - 18}
            className="stroke-copper"
            strokeWidth="2.5"
          />
          <path d={`M${x(shown) - 7} 20h14l-7 9z`} className="fill-copper" />
          <text
            x={Math.min(Math.max(x(shown), LEFT + 30), widthPx - 60)}
            y={14}
            textAnchor="middle"
            className="fill-copper font-semibold"
          >
            target {shown}
          </text>
        </g>
      )}
    </svg>
  );
}

interface LaneRowProps {
  lane: Lane;
  topPx: number;
  x: (modules: number) => number;
  endPx: number;
  widthPx: number;
  beyond: boolean;
  open: boolean;
  onOpen: () => void;
}

function LaneRow({ lane, topPx, x, endPx, widthPx, beyond, open, onOpen }: LaneRowProps) {
  const { modules } = lane;
  const barEnd = modules === null ? LEFT : beyond ? endPx : x(modules);
  return (
    <g role="button" aria-expanded={open} className="cursor-pointer" {...pressable(onOpen)}>
      <rect
        x={0}
        y={topPx}
        width={widthPx}
        height={LANE - 2}
        rx={5}
        className={open ? 'fill-paper' : 'fill-transparent'}
      />
      <text x={4} y={topPx + 17} className={lane.binds ? 'fill-ink font-semibold' : 'fill-ink'}>
        {lane.title}
      </text>{' '}
      {modules === null ? (
        <text x={LEFT} y={topPx + 17} className="fill-warn">
          {lane.reason || 'not known'}
        </text>
      ) : (
        <>
          <rect
            x={LEFT}
            y={topPx + 8}
            width={Math.max(0, barEnd - LEFT)}
            height={10}
            className={lane.binds ? 'fill-ink-2' : 'fill-rule'}
          />
          {beyond ? (
            <path d={`M${endPx} ${topPx + 6}l8 7-8 7z`} className="fill-rule" />
          ) : (
            <rect x={barEnd - 1.5} y={topPx + 3} width={3} height={20} className="fill-ink" />
          )}
          <text x={widthPx - 4} y={topPx + 17} textAnchor="end" className="fill-ink font-semibold">
            {modules}
          </text>
        </>
      )}
    </g>
  );
}
