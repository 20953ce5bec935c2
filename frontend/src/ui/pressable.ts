/** A thing of a drawing that is walked to and pressed: by a click, by Enter or by space. */
import type { KeyboardEvent } from 'react';

/** Press by key what a click does. */
export const pressed = (run: () => void) => (event: KeyboardEvent) => {
  if (event.key !== 'Enter' && event.key !== ' ') return;
  event.preventDefault();
  run();
};

export const pressable = (run: () => void) => ({
  'data-stop': '',
  tabIndex: -1,
  onClick: run,
  onKeyDown: pressed(run),
});
