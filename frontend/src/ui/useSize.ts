/** The size of an element in pixels, followed as it changes. */
import { useCallback, useState } from 'react';

export interface Size {
  widthPx: number;
  heightPx: number;
}

export function useSize(): [
  Size | null,
  (element: HTMLElement | null) => (() => void) | undefined,
] {
  const [size, setSize] = useState<Size | null>(null);
  const measure = useCallback((element: HTMLElement | null) => {
    if (!element) return undefined;
    const observer = new ResizeObserver(() =>
      setSize({ widthPx: element.clientWidth, heightPx: element.clientHeight }),
    );
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  return [size, measure];
}
