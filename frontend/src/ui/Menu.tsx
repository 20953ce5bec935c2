/** A button that opens a short list of things to do, wrapped once. */
import { DropdownMenu } from 'radix-ui';
import type { ReactNode } from 'react';

export interface MenuItem {
  label: string;
  hint?: string;
  run: () => void;
  disabled?: boolean;
}

interface MenuProps {
  label: string;
  items: MenuItem[];
  /** A tool of the list is in hand. */
  pressed?: boolean;
  children?: ReactNode;
}

export function Menu({ label, items, pressed = false, children }: MenuProps) {
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger
        className={`for-the-hand inline-flex h-[27px] items-center gap-2 rounded-md border px-2.5 text-sm font-medium whitespace-nowrap ${pressed ? 'border-ink bg-ink text-sheet' : 'border-rule bg-sheet text-ink hover:border-field'}`}
      >
        {children ?? label}
        <svg width="10" height="6" viewBox="0 0 10 6" aria-hidden="true">
          <path d="M1 1l4 4 4-4" stroke="currentColor" fill="none" strokeWidth="1.5" />
        </svg>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="start"
          sideOffset={4}
          aria-label={label}
          className="z-50 max-h-[70vh] min-w-[190px] overflow-auto rounded-md border border-field bg-sheet p-1 text-sm"
        >
          {items.map((item) => (
            <DropdownMenu.Item
              key={item.label}
              disabled={item.disabled ?? false}
              onSelect={item.run}
              className="flex cursor-pointer items-center justify-between gap-4 rounded-sm px-3 py-1.5 outline-none data-[disabled]:cursor-default data-[disabled]:opacity-50 data-[highlighted]:bg-patina-wash"
            >
              {item.label}
              {item.hint && <span className="text-xs text-ink-3">{item.hint}</span>}
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
