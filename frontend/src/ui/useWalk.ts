/**
 * One tab stop for a whole drawing or chart: Tab comes to it, arrows walk among its things, Home
 * and End go to the first and the last. A thing is walked to when it carries `data-stop`, and
 * leaves its `tabIndex` at −1; an arrow that a thing uses for itself walks nowhere.
 */
import { type FocusEvent, type KeyboardEvent, useCallback, useRef } from 'react';
import { type Direction, nextPlace, type Place } from './walk';

/** Things of a drawing lie where they are drawn; those of a chart follow one another. */
export type Walk = 'drawing' | 'chart';

const DIRECTIONS: Record<string, Direction> = {
  ArrowLeft: 'left',
  ArrowRight: 'right',
  ArrowUp: 'up',
  ArrowDown: 'down',
};
const STEPS: Record<Direction, number> = { left: -1, up: -1, right: 1, down: 1 };

type Stop = SVGElement | HTMLElement;

/** What is spread over the element round the things. */
export function useWalk(walk: Walk = 'drawing') {
  const root = useRef<Element | null>(null);
  const entry = useRef<Stop | null>(null);
  const stops = () => [...(root.current?.querySelectorAll<Stop>('[data-stop]') ?? [])];

  const enterAt = useCallback((stop: Stop | null) => {
    if (entry.current === stop) return;
    entry.current?.setAttribute('tabindex', '-1');
    stop?.setAttribute('tabindex', '0');
    entry.current = stop;
  }, []);
  const ref = useCallback(
    (element: Element | null) => {
      root.current = element;
      if (!element) return undefined;
      const settle = () => {
        const all = [...element.querySelectorAll<Stop>('[data-stop]')];
        if (entry.current && all.includes(entry.current)) return;
        const chosen = all.find((s) => s.ariaPressed === 'true' || s.ariaChecked === 'true');
        enterAt(chosen ?? all[0] ?? null);
      };
      settle();
      const watch = new MutationObserver(settle);
      watch.observe(element, { childList: true, subtree: true, attributeFilter: ['data-stop'] });
      return () => {
        watch.disconnect();
        enterAt(null);
      };
    },
    [enterAt],
  );
  const onFocus = (event: FocusEvent) =>
    enterAt(event.target.closest<Stop>('[data-stop]') ?? entry.current);
  const onKeyDown = (event: KeyboardEvent) => {
    const here = (event.target as Element).closest<Stop>('[data-stop]');
    const taken = event.defaultPrevented || event.ctrlKey || event.metaKey || event.altKey;
    if (!here || taken) return;
    const to = goneTo(stops(), here, event.key, walk);
    if (!to) return;
    event.preventDefault();
    to.focus();
  };
  return { ref, onFocus, onKeyDown };
}

/** The thing a key goes to; none where the key walks nowhere. */
function goneTo(all: Stop[], here: Stop, key: string, walk: Walk): Stop | undefined {
  if (key === 'Home') return all[0];
  if (key === 'End') return all.at(-1);
  const direction = DIRECTIONS[key];
  if (!direction) return undefined;
  if (walk === 'chart')
    return all[Math.min(Math.max(all.indexOf(here) + STEPS[direction], 0), all.length - 1)];
  const places = all.map(placeOf);
  return all[Number(nextPlace(places, String(all.indexOf(here)), direction))];
}

function placeOf(stop: Stop, index: number): Place {
  const box = stop.getBoundingClientRect();
  return { id: String(index), xM: box.x + box.width / 2, yM: -(box.y + box.height / 2) };
}
