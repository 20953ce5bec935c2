/** Rows of typed fields, as the parts of the brief stack them. */
import type { ReactNode } from 'react';
import { TypedField } from '@/ui/TypedField';

interface FieldRowProps {
  label: string;
  value: string;
  commit: (typed: string) => Promise<unknown>;
  placeholder?: string;
  width?: number;
  words?: boolean;
  tall?: boolean;
}

/** A figure to the right of its name; `words` for text, `tall` for more of it. */
export function FieldRow({ label, value, commit, placeholder, width, words, tall }: FieldRowProps) {
  return (
    <TypedField
      label={label}
      value={value}
      commit={commit}
      placeholder={placeholder ?? 'none'}
      width={width ?? 84}
      align={words ? 'left' : 'right'}
      showLabel
      tall={tall ?? false}
    />
  );
}

/** A titled column of fields. */
export function Fields({
  title,
  aside,
  children,
  width = 262,
}: {
  title: string;
  aside?: ReactNode;
  children: ReactNode;
  width?: number;
}) {
  return (
    <section aria-label={title} className="shrink-0" style={{ width }}>
      <div className="mb-1 flex min-h-7 items-center justify-between gap-2">
        <h2 className="text-sm font-semibold">{title}</h2>
        {aside}
      </div>
      <div className="flex flex-col gap-1">{children}</div>
    </section>
  );
}

/** A sentence that says a figure is not one's own yet. */
export function Warned({ children }: { children: ReactNode }) {
  return (
    <p className="rounded-sm border border-warn bg-warn-wash px-2 py-1 text-xs text-warn">
      {children}
    </p>
  );
}
