/** A drop-down choice, wrapped once; the nonce lets its viewport style pass the content policy. */
import { getNonce } from 'get-nonce';
import { Select } from 'radix-ui';
import { memo, useCallback, useEffect, useRef } from 'react';
import { useSame } from './useSame';

export interface ChoiceItem {
  value: string;
  label: string;
  /** Stands for the label while the list is closed. */
  short?: string;
}

interface ChoiceProps {
  label: string;
  value: string;
  items: ChoiceItem[];
  onChange: (value: string) => void;
  className?: string;
}

export function Choice({ items, onChange, ...rest }: ChoiceProps) {
  const newest = useRef(onChange);
  useEffect(() => {
    newest.current = onChange;
  });
  const choose = useCallback((value: string) => newest.current(value), []);
  return <ClosedList {...rest} items={useSame(items)} onChange={choose} />;
}

/** A closed list's items are made too: it is made again only where something in it changes. */
const ClosedList = memo(function ClosedList({
  label,
  value,
  items,
  onChange,
  className = '',
}: ChoiceProps) {
  const nonce = getNonce();
  const chosen = items.find((item) => item.value === value);
  return (
    <Select.Root value={value} onValueChange={onChange}>
      <Select.Trigger
        aria-label={label}
        title={chosen?.short ? chosen.label : undefined}
        className={`inline-flex h-[27px] items-center justify-between gap-2 rounded-md border border-field bg-sheet px-2.5 text-sm ${className}`}
      >
        <span className="truncate">
          <Select.Value>{chosen?.short}</Select.Value>
        </span>
        <Select.Icon aria-hidden="true">
          <svg width="10" height="6" viewBox="0 0 10 6" role="presentation">
            <path d="M1 1l4 4 4-4" stroke="currentColor" fill="none" strokeWidth="1.5" />
          </svg>
        </Select.Icon>
      </Select.Trigger>
      <Select.Portal>
        <Select.Content
          position="popper"
          sideOffset={4}
          className="z-50 max-h-[60vh] rounded-md border border-field bg-sheet p-1 text-sm"
        >
          <Select.Viewport {...(nonce ? { nonce } : {})}>
            {items.map((item) => (
              <Select.Item
                key={item.value}
                value={item.value}
                className="cursor-pointer rounded-sm px-3 py-1.5 outline-none data-[highlighted]:bg-patina-wash data-[state=checked]:font-semibold"
              >
                <Select.ItemText>{item.label}</Select.ItemText>
              </Select.Item>
            ))}
          </Select.Viewport>
        </Select.Content>
      </Select.Portal>
    </Select.Root>
  );
});
