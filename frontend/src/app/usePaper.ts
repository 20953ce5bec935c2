/** A drawing as wide as the screen is made to fit the sheet while it is printed. */
import { useEffect } from 'react';

/** Between the margins of a landscape sheet, Letter or A4, at 96 pixels an inch. */
const SHEET_PX = 970;

export function usePaper() {
  useEffect(() => {
    const root = document.documentElement;
    const fit = () => {
      const wide = document.getElementById('work')?.scrollWidth ?? 0;
      root.style.setProperty('--paper-zoom', String(Math.min(1, SHEET_PX / Math.max(1, wide))));
    };
    const back = () => root.style.removeProperty('--paper-zoom');
    window.addEventListener('beforeprint', fit);
    window.addEventListener('afterprint', back);
    return () => {
      window.removeEventListener('beforeprint', fit);
      window.removeEventListener('afterprint', back);
    };
  }, []);
}
