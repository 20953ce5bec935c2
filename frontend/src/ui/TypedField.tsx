/**
 * A figure that is typed over: Enter or leaving the field commits, Escape restores.
 * While it is edited the echo says what was understood; a refusal stays under the field,
 * with what was typed, until it is put right.
 */
import { useId, useState } from 'react';

interface TypedFieldProps {
  label: string;
  value: string;
  commit: (typed: string) => Promise<unknown>;
  echo?: (typed: string) => string;
  placeholder?: string;
  width?: number;
  align?: 'center' | 'right';
  showLabel?: boolean;
  noteAbove?: boolean;
}

export function TypedField({
  label,
  value,
  commit,
  echo,
  placeholder,
  width = 84,
  align = 'center',
  showLabel = false,
  noteAbove = false,
}: TypedFieldProps) {
  const [draft, setDraft] = useState<string | null>(null);
  const [refusal, setRefusal] = useState('');
  const id = useId();

  const restore = () => {
    setDraft(null);
    setRefusal('');
  };
  const finish = async () => {
    if (draft === null || draft === value) return restore();
    try {
      await commit(draft);
      restore();
    } catch (error) {
      // A save that lost to another tab is kept elsewhere; typing it here again is not wanted.
      if (error instanceof Error && 'code' in error && error.code === 'save.conflict') restore();
      else setRefusal(error instanceof Error ? error.message : String(error));
    }
  };

  const note = refusal || (draft !== null && echo ? echo(draft) : '');
  return (
    <span className={`relative ${showLabel ? 'flex items-center justify-between gap-2' : ''}`}>
      <label htmlFor={id} className={showLabel ? 'text-sm' : 'sr-only'}>
        {label}
      </label>
      <input
        id={id}
        value={draft ?? value}
        placeholder={placeholder}
        autoComplete="off"
        spellCheck={false}
        aria-invalid={refusal !== ''}
        aria-describedby={note ? `${id}-note` : undefined}
        onChange={(event) => {
          setDraft(event.target.value);
          setRefusal('');
        }}
        onFocus={(event) => event.target.select()}
        // What was refused stays to be put right; only Enter tries the same text again.
        onBlur={() => void (refusal || finish())}
        onKeyDown={(event) => {
          if (event.key === 'Enter') void finish();
          if (event.key === 'Escape') restore();
          event.stopPropagation();
        }}
        style={{ width }}
        className={`h-[26px] rounded-md border bg-sheet px-1.5 font-figure text-base ${align === 'right' ? 'text-right' : 'text-center'} ${refusal ? 'border-stop' : draft !== null ? 'border-copper' : 'border-field'}`}
      />
      {note && (
        <span
          id={`${id}-note`}
          role={refusal ? 'alert' : 'status'}
          className={`absolute z-30 ${noteAbove ? 'bottom-full mb-1' : 'top-full mt-1'} w-max max-w-[260px] rounded-md border px-2 py-1 text-left text-xs ${showLabel ? 'right-0' : 'left-0'} ${refusal ? 'border-stop bg-stop-wash text-stop' : 'border-rule bg-sheet text-ink-2'}`}
        >
          {note}
        </span>
      )}
    </span>
  );
}
