/** The board of cards below the work surface: drawn up, down, and closed by its upper edge. */
import {
  type KeyboardEvent,
  type PointerEvent,
  type ReactNode,
  useRef,
  useState,
  useSyncExternalStore,
} from 'react';

const KEPT = 'ridge-tally.board';
const STEP_PX = 24;
/** The bar, the tools, and a drawing one can still work on stay above it. */
const LEFT_ABOVE_PX = 330;
/** Drawn down below this it closes. */
const LEAST_PX = 60;

interface Kept {
  /** How much higher than a board is by itself. */
  morePx: number;
  closed: boolean;
}

function kept(): Kept {
  try {
    const { morePx, closed } = JSON.parse(localStorage.getItem(KEPT) ?? '{}') as Partial<Kept>;
    return { morePx: Number.isFinite(morePx) ? Number(morePx) : 0, closed: closed === true };
  } catch {
    return { morePx: 0, closed: false };
  }
}

const onResize = (changed: () => void) => {
  window.addEventListener('resize', changed);
  return () => window.removeEventListener('resize', changed);
};

export function Board({ children, heightPx = 214 }: { children: ReactNode; heightPx?: number }) {
  const [{ morePx, closed }, set] = useState(kept);
  const from = useRef<{ y: number; heightPx: number } | null>(null);
  const windowPx = useSyncExternalStore(onResize, () => window.innerHeight);
  const mostPx = Math.max(LEAST_PX, windowPx - LEFT_ABOVE_PX);
  const openPx = Math.min(mostPx, Math.max(LEAST_PX, heightPx + morePx));
  const nowPx = closed ? 0 : openPx;

  const keep = (next: Kept) => {
    localStorage.setItem(KEPT, JSON.stringify(next));
    set(next);
  };
  const to = (px: number) =>
    px < LEAST_PX
      ? keep({ morePx, closed: true })
      : keep({ morePx: Math.min(mostPx, px) - heightPx, closed: false });
  const toggle = () => keep({ morePx, closed: !closed });

  const onKeyDown = (event: KeyboardEvent) => {
    const heights: Record<string, number> = {
      ArrowUp: closed ? openPx : nowPx + STEP_PX,
      ArrowDown: nowPx - STEP_PX,
      Home: 0,
      End: mostPx,
      Enter: closed ? openPx : 0,
    };
    const px = heights[event.key];
    if (px === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    to(px);
  };
  const onPointerDown = (event: PointerEvent) => {
    event.currentTarget.setPointerCapture(event.pointerId);
    from.current = { y: event.clientY, heightPx: nowPx };
  };
  const onPointerMove = (event: PointerEvent) => {
    if (from.current) to(from.current.heightPx + from.current.y - event.clientY);
  };

  return (
    <>
      <div
        role="separator"
        aria-orientation="horizontal"
        aria-label="Height of the board: arrows move it, Enter closes and opens it"
        aria-valuenow={nowPx}
        aria-valuemin={0}
        aria-valuemax={mostPx}
        tabIndex={0}
        title={closed ? 'Open the board' : 'Draw the board up or down; a double click closes it'}
        onKeyDown={onKeyDown}
        onPointerDown={onPointerDown}
        onPointerMove={onPointerMove}
        onPointerUp={() => {
          from.current = null;
        }}
        onDoubleClick={toggle}
        className={`group relative z-10 flex shrink-0 cursor-row-resize touch-none items-center justify-center border-t border-rule bg-sheet ${closed ? 'h-6' : 'h-2'}`}
      >
        <span className="h-[3px] w-9 rounded-full bg-rule group-hover:bg-field group-focus-visible:bg-ink" />
        {closed && <span className="absolute left-3 text-xs text-ink-2">Board</span>}
      </div>
      {!closed && (
        <div
          className="board relative flex shrink-0 *:max-w-full gap-3 overflow-x-auto overscroll-x-contain bg-sheet px-2.5 pb-2.5"
          style={{ height: openPx }}
        >
          {children}
        </div>
      )}
    </>
  );
}
