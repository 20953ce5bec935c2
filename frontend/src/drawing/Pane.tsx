/** A drawing that fills its box: fitted to its points, zoomed by the wheel, moved by its ground. */
import {
  type PointerEvent,
  type ReactNode,
  useCallback,
  useEffect,
  useLayoutEffect,
  useRef,
  useState,
} from 'react';
import { useSame } from '@/ui/useSame';
import { useSize } from '@/ui/useSize';
import { useWalk } from '@/ui/useWalk';
import { type Camera, fitCamera, type PointM, toPlane } from './camera';
import { type Look, lookedThrough, shifted, WHOLE, zoomedAt } from './look';

export interface PaneView {
  camera: Camera;
  widthPx: number;
  heightPx: number;
}

interface PaneProps {
  points: PointM[];
  padPx: { left: number; right: number; top: number; bottom: number };
  label: string;
  zoomable?: boolean;
  cursor?: string;
  /** A click on the ground, not on a thing. */
  onSpot?: ((spot: PointM) => void) | undefined;
  onHover?: ((spot: PointM) => void) | undefined;
  /** A box drawn over the ground; then the ground does not move under the hand. */
  onBox?: ((from: PointM, to: PointM) => void) | undefined;
  /** SVG, drawn in pixels of the pane. */
  children: (view: PaneView) => ReactNode;
  /** HTML over the drawing, placed in the same pixels. */
  overlay?: (view: PaneView) => ReactNode;
}

interface Press {
  xPx: number;
  yPx: number;
  moved: boolean;
}

/** Panes narrower than this have narrower margins. */
const WIDE_PX = 460;
/** The wheel rests this long before the drawing is drawn anew at its new size. */
const RESTS_MS = 140;

function margins(padPx: PaneProps['padPx'], widthPx: number): PaneProps['padPx'] {
  const part = Math.min(1, widthPx / WIDE_PX);
  return { ...padPx, left: padPx.left * part, right: padPx.right * part };
}

export function Pane({
  points,
  padPx,
  label,
  zoomable = false,
  cursor,
  onSpot,
  onHover,
  onBox,
  children,
  overlay,
}: PaneProps) {
  const [size, measure] = useSize();
  const [look, setLook] = useState<Look>(WHOLE);
  const press = useRef<Press | null>(null);
  const walk = useWalk();
  const sheet = useRef<HTMLDivElement>(null);
  const band = useRef<SVGRectElement>(null);
  // Where the hand has taken the look since it was last drawn.
  const ahead = useRef<Look | null>(null);
  const camera = useSame(
    size && points.length > 0
      ? lookedThrough(fitCamera(points, { ...size, paddingPx: margins(padPx, size.widthPx) }), look)
      : null,
  );

  /** Shows the look by shifting what is drawn already: no drawing anew while a hand moves. */
  const show = useCallback(
    (next: Look) => {
      ahead.current = next;
      const by = next.zoom / look.zoom;
      const [x, y] = [next.dxPx - look.dxPx * by, next.dyPx - look.dyPx * by];
      if (sheet.current) sheet.current.style.transform = `translate(${x}px, ${y}px) scale(${by})`;
    },
    [look],
  );
  const settle = useCallback(() => {
    if (ahead.current) setLook(ahead.current);
    ahead.current = null;
  }, []);
  // biome-ignore lint/correctness/useExhaustiveDependencies: drawn anew, the shift is no longer due
  useLayoutEffect(() => {
    if (sheet.current) sheet.current.style.transform = '';
  }, [look]);

  const ready = camera !== null;
  useEffect(() => {
    const frame = sheet.current?.parentElement;
    if (!frame || !zoomable || !ready) return undefined;
    let resting = 0;
    // React listens to the wheel passively; a drawing has to keep the page still.
    const onWheel = (event: WheelEvent) => {
      event.preventDefault();
      const box = frame.getBoundingClientRect();
      const at = { xPx: event.clientX - box.left, yPx: event.clientY - box.top };
      show(zoomedAt(ahead.current ?? look, event.deltaY < 0 ? 1.15 : 1 / 1.15, at));
      window.clearTimeout(resting);
      resting = window.setTimeout(settle, RESTS_MS);
    };
    frame.addEventListener('wheel', onWheel, { passive: false });
    return () => {
      frame.removeEventListener('wheel', onWheel);
      window.clearTimeout(resting);
    };
  }, [zoomable, ready, look, show, settle]);

  const spotOf = (event: PointerEvent<SVGSVGElement>): PointM | null => {
    if (!camera) return null;
    const box = event.currentTarget.getBoundingClientRect();
    return toPlane(camera, { xPx: event.clientX - box.left, yPx: event.clientY - box.top });
  };
  const down = (event: PointerEvent<SVGSVGElement>) => {
    if (event.target !== event.currentTarget && !isGround(event.target)) return;
    press.current = { xPx: event.clientX, yPx: event.clientY, moved: false };
    if (zoomable || onBox) event.currentTarget.setPointerCapture(event.pointerId);
  };
  const move = (event: PointerEvent<SVGSVGElement>) => {
    const spot = onHover && spotOf(event);
    if (spot) onHover(spot);
    const from = press.current;
    if (!from || !(zoomable || onBox)) return;
    const [dx, dy] = [event.clientX - from.xPx, event.clientY - from.yPx];
    if (!from.moved && Math.hypot(dx, dy) < 4) return;
    if (onBox) {
      from.moved = true;
      stretch(event);
      return;
    }
    show(shifted(ahead.current ?? look, dx, dy));
    press.current = { xPx: event.clientX, yPx: event.clientY, moved: true };
  };
  /** Draws the box on the screen itself, as often as the hand moves. */
  const stretch = (event: PointerEvent<SVGSVGElement>) => {
    const [from, rect] = [press.current, band.current];
    if (!from || !rect) return;
    const box = event.currentTarget.getBoundingClientRect();
    rect.setAttribute('x', String(Math.min(from.xPx, event.clientX) - box.left));
    rect.setAttribute('y', String(Math.min(from.yPx, event.clientY) - box.top));
    rect.setAttribute('width', String(Math.abs(event.clientX - from.xPx)));
    rect.setAttribute('height', String(Math.abs(event.clientY - from.yPx)));
  };
  const up = (event: PointerEvent<SVGSVGElement>) => {
    const spot = spotOf(event);
    if (press.current?.moved && onBox && spot && camera) {
      const box = event.currentTarget.getBoundingClientRect();
      const { xPx, yPx } = press.current;
      band.current?.setAttribute('width', '0');
      press.current = null;
      onBox(toPlane(camera, { xPx: xPx - box.left, yPx: yPx - box.top }), spot);
      return;
    }
    if (press.current && !press.current.moved && spot) onSpot?.(spot);
    if (press.current?.moved) settle();
    press.current = null;
  };
  const middle = { xPx: (size?.widthPx ?? 0) / 2, yPx: (size?.heightPx ?? 0) / 2 };

  return (
    <div ref={measure} className="relative min-h-[320px] shrink-0 grow basis-0 overflow-hidden">
      {size && camera && (
        <>
          <div
            ref={sheet}
            className={`drawn-sheet absolute inset-0 origin-top-left ${zoomable ? 'will-change-transform' : ''}`}
          >
            {/* The ground only takes clicks; what stands on it answers the keyboard. */}
            <svg
              {...walk}
              width={size.widthPx}
              height={size.heightPx}
              role="group"
              aria-label={label}
              className="absolute inset-0 touch-none select-none"
              style={{ cursor: cursor ?? 'default' }}
              onPointerDown={down}
              onPointerMove={move}
              onPointerUp={up}
              onPointerCancel={() => {
                press.current = null;
                band.current?.setAttribute('width', '0');
                settle();
              }}
            >
              {children({ camera, ...size })}
              {onBox && (
                <rect
                  ref={band}
                  width="0"
                  height="0"
                  fill="var(--color-copper)"
                  fillOpacity="0.12"
                  stroke="var(--color-copper)"
                  strokeDasharray="4 3"
                  pointerEvents="none"
                />
              )}
            </svg>
            {overlay?.({ camera, ...size })}
          </div>
          {zoomable && (
            <div className="for-the-hand absolute right-2 bottom-2 z-20 flex gap-1">
              <ZoomButton label="Farther" onClick={() => setLook(zoomedAt(look, 1 / 1.4, middle))}>
                −
              </ZoomButton>
              <ZoomButton label="Closer" onClick={() => setLook(zoomedAt(look, 1.4, middle))}>
                +
              </ZoomButton>
              {look !== WHOLE && (
                <ZoomButton label="Show all" onClick={() => setLook(WHOLE)}>
                  All
                </ZoomButton>
              )}
            </div>
          )}
        </>
      )}
    </div>
  );
}

const isGround = (target: EventTarget) =>
  target instanceof SVGElement && 'ground' in target.dataset;

interface ZoomButtonProps {
  label: string;
  onClick: () => void;
  children: ReactNode;
}

function ZoomButton({ label, onClick, children }: ZoomButtonProps) {
  return (
    <button
      type="button"
      aria-label={label}
      onClick={onClick}
      className="min-h-6 min-w-7 rounded-md border border-rule bg-sheet px-1.5 text-sm font-medium hover:border-field"
    >
      {children}
    </button>
  );
}

interface AtProps {
  xPx: number;
  yPx: number;
  children: ReactNode;
}

/** HTML centred on a point of the drawing. */
export function At({ xPx, yPx, children }: AtProps) {
  return (
    <div
      className="absolute z-10 -translate-x-1/2 -translate-y-1/2 focus-within:z-30"
      style={{ left: xPx, top: yPx }}
    >
      {children}
    </div>
  );
}
