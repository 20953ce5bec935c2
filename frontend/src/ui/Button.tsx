/** Buttons in three weights; a key hint may stand in them. */
import type { ComponentProps } from 'react';

interface ButtonProps extends ComponentProps<'button'> {
  weight?: 'main' | 'plain' | 'pressed';
  hint?: string;
}

const WEIGHT = {
  main: 'for-the-hand border-patina bg-patina text-sheet hover:bg-patina-dark',
  plain: 'for-the-hand border-rule bg-sheet text-ink hover:border-field',
  pressed: 'border-ink bg-ink text-sheet',
};

export function Button({ weight = 'plain', hint, className = '', children, ...rest }: ButtonProps) {
  const hintColour = weight === 'plain' ? 'text-ink-3' : 'text-sheet';
  return (
    <button
      type="button"
      aria-keyshortcuts={hint}
      {...rest}
      className={`inline-flex h-[27px] items-center gap-2 rounded-md border px-2.5 max-md:px-2 text-sm font-medium whitespace-nowrap disabled:opacity-50 ${WEIGHT[weight]} ${className}`}
    >
      {children}
      {hint && (
        <span aria-hidden="true" className={`text-xs font-normal max-md:hidden ${hintColour}`}>
          {hint}
        </span>
      )}
    </button>
  );
}
