/** Keys of the page: ignored while somebody types, or when single letters are switched off. */
import { useEffect, useRef } from 'react';

export type KeyMap = Record<string, (event: KeyboardEvent) => void>;
const SWITCH = 'ridge-tally-single-keys';

export const singleKeysOn = () => localStorage.getItem(SWITCH) !== 'off';
export const setSingleKeys = (on: boolean) => localStorage.setItem(SWITCH, on ? 'on' : 'off');

function nameOf(event: KeyboardEvent): string {
  const command = event.ctrlKey || event.metaKey ? 'mod+' : '';
  const shift = event.shiftKey && (event.key.length > 1 || command) ? 'shift+' : '';
  return command + shift + (event.key.length === 1 ? event.key.toLowerCase() : event.key);
}

/** Listen to keys by name: `v`, `mod+z`, `mod+shift+z`, `ArrowLeft`, `shift+ArrowLeft`. */
export function useKeys(map: KeyMap): void {
  const current = useRef(map);
  current.current = map;
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement | null;
      const typing = target?.closest('input, textarea, select, [role="listbox"], [role="dialog"]');
      const name = nameOf(event);
      // Enter and space press what is in focus before they do anything else.
      const pressing = (name === 'Enter' || name === ' ') && target?.closest('button, a, summary');
      const run = current.current[name];
      if (!run || typing || pressing || event.defaultPrevented) return;
      if (/^[a-z,.[\]]$/.test(name) && !singleKeysOn()) return;
      event.preventDefault();
      run(event);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
}
