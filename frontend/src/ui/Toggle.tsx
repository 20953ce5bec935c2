/** A box to tick, with its words beside it. */
import { Checkbox } from 'radix-ui';
import { type ReactNode, useId } from 'react';

interface ToggleProps {
  on: boolean;
  onChange: (on: boolean) => void;
  children: ReactNode;
}

export function Toggle({ on, onChange, children }: ToggleProps) {
  const id = useId();
  return (
    <span className="flex min-h-6 items-center gap-2 text-sm">
      <Checkbox.Root
        id={id}
        checked={on}
        onCheckedChange={(checked) => onChange(checked === true)}
        className="flex h-6 w-6 shrink-0 items-center justify-center rounded-sm border border-field bg-sheet data-[state=checked]:border-patina data-[state=checked]:bg-patina"
      >
        <Checkbox.Indicator aria-hidden="true">
          <svg width="12" height="10" viewBox="0 0 12 10" role="presentation">
            <path d="M1 5l3.5 4L11 1" className="fill-none stroke-sheet" strokeWidth="2" />
          </svg>
        </Checkbox.Indicator>
      </Checkbox.Root>
      <label htmlFor={id}>{children}</label>
    </span>
  );
}
