/** Fields and buttons for gloves: 44 px high, whatever the screen. */
import { type ComponentProps, useId } from 'react';
import type { Schemas } from '@/api/client';

const TONE = {
  main: 'border-patina bg-patina text-sheet',
  plain: 'border-field bg-sheet',
};

interface BigButtonProps extends ComponentProps<'button'> {
  weight?: keyof typeof TONE;
}

export function BigButton({ weight = 'plain', className = '', ...rest }: BigButtonProps) {
  return (
    <button
      type="button"
      {...rest}
      className={`inline-flex min-h-11 items-center justify-center gap-2 rounded-md border px-3 text-sm font-medium disabled:opacity-50 ${TONE[weight]} ${className}`}
    />
  );
}

interface BigFieldProps {
  label: string;
  value: string;
  onChange: (typed: string) => void;
  unit?: string;
  placeholder?: string;
  className?: string;
  /** Only read out: the column or row over it names it for the eye. */
  quiet?: boolean;
  onLeave?: () => void;
  tone?: 'plain' | 'warn' | 'stop' | 'good';
}

const EDGE = {
  plain: 'border-field',
  warn: 'border-warn bg-warn-wash',
  stop: 'border-stop bg-stop-wash',
  good: 'border-patina bg-patina-wash',
};

export function BigField({
  label,
  value,
  onChange,
  unit = '',
  placeholder = '',
  className = 'w-24',
  quiet = false,
  onLeave,
  tone = 'plain',
}: BigFieldProps) {
  const id = useId();
  return (
    <span className="inline-flex flex-col">
      <label htmlFor={id} className={quiet ? 'sr-only' : 'text-xs text-ink-2'}>
        {label}
        {unit && `, ${unit}`}
      </label>
      <input
        id={id}
        value={value}
        placeholder={placeholder}
        autoComplete="off"
        spellCheck={false}
        onChange={(event) => onChange(event.target.value)}
        onBlur={onLeave}
        className={`h-11 rounded-md border bg-sheet px-2 font-figure text-base ${EDGE[tone]} ${className}`}
      />
    </span>
  );
}

interface BigChoiceProps {
  label: string;
  value: string;
  items: readonly { value: string; label: string }[];
  onChange: (value: string) => void;
  className?: string;
}

/** The machine's own list: the quickest for a thumb. */
export function BigChoice({ label, value, items, onChange, className = '' }: BigChoiceProps) {
  const id = useId();
  return (
    <span className={`inline-flex min-w-0 flex-col ${className}`}>
      <label htmlFor={id} className="text-xs text-ink-2">
        {label}
      </label>
      <select
        id={id}
        value={value}
        onChange={(event) => onChange(event.target.value)}
        className="h-11 min-w-0 rounded-md border border-field bg-sheet px-2 text-sm"
      >
        {items.map((item) => (
          <option key={item.value} value={item.value}>
            {item.label}
          </option>
        ))}
      </select>
    </span>
  );
}

interface BigFileProps {
  label: string;
  /** What is read out: which file. */
  name: string;
  accept: string;
  onFile: (file: File) => void;
}

/** Asks for a file, or for a photo where the machine has a camera. */
export function BigFile({ label, name, accept, onFile }: BigFileProps) {
  return (
    <label
      className={`inline-flex min-h-11 cursor-pointer items-center rounded-md border px-3 text-sm font-medium focus-within:outline-2 focus-within:outline-copper ${TONE.main}`}
    >
      {label}
      <input
        type="file"
        accept={accept}
        aria-label={name}
        className="sr-only"
        onChange={(event) => {
          const file = event.target.files?.[0];
          event.target.value = '';
          if (file) onFile(file);
        }}
      />
    </label>
  );
}

export const SKIES = ['clear', 'hazy', 'overcast'].map((value) => ({ value, label: value }));

/** A reading that can be taken, as an item of a list. */
export const keyOf = (one: { reading: string; place: string }) => `${one.reading}|${one.place}`;
export const named = (one: Schemas['CanRead']) =>
  `${one.place ? `${one.place}: ` : ''}${one.title}`;

interface TakeOffProps {
  label: string;
  onClick: () => void;
}

export function TakeOff({ label, onClick }: TakeOffProps) {
  return (
    <button type="button" aria-label={label} onClick={onClick} className="min-h-11 min-w-11">
      ×
    </button>
  );
}

/** The day as it is written down. */
export const today = () => new Date().toISOString().slice(0, 10);

export const percent = (chance: number) =>
  chance > 0.99 ? '> 99 %' : chance < 0.005 ? '< 1 %' : `${Math.round(chance * 100)} %`;
