/** A part that scrolls and holds nothing to tab to is a tab stop itself, so that keys scroll it. */
import { useCallback } from 'react';

const STOPS = 'a[href], button, input, select, textarea, summary, [tabindex]:not([tabindex="-1"])';

/** The ref of the part; only while it holds more than it shows is it a stop. */
export function useScrollStop() {
  return useCallback((part: HTMLElement | null) => {
    if (!part) return undefined;
    const settle = () => {
      const scrolls = part.scrollHeight > part.clientHeight + 1;
      if (scrolls && !part.querySelector(STOPS)) part.tabIndex = 0;
      else part.removeAttribute('tabindex');
    };
    const size = new ResizeObserver(settle);
    const inside = new MutationObserver(settle);
    size.observe(part);
    inside.observe(part, { childList: true, subtree: true, characterData: true });
    settle();
    return () => {
      size.disconnect();
      inside.disconnect();
    };
  }, []);
}
