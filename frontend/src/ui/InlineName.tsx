/** A name that becomes a field when it is clicked: Enter takes it, Escape leaves it. */
import { useState } from 'react';

interface InlineNameProps {
  label: string;
  hint: string;
  value: string;
  onName: (name: string) => void;
  className?: string;
}

export function InlineName({ label, hint, value, onName, className = '' }: InlineNameProps) {
  const [draft, setDraft] = useState<string | null>(null);
  const finish = () => {
    if (draft?.trim() && draft.trim() !== value) onName(draft.trim());
    setDraft(null);
  };
  if (draft === null) {
    return (
      <button
        type="button"
        title={hint}
        className={`min-h-6 text-left leading-tight break-words ${className}`}
        onClick={() => setDraft(value)}
      >
        {value}
      </button>
    );
  }
  return (
    <input
      // biome-ignore lint/a11y/noAutofocus: the person has just asked to type here
      autoFocus
      aria-label={label}
      value={draft}
      maxLength={80}
      className={`h-6 w-[180px] rounded-sm border border-copper bg-sheet px-1.5 text-ink ${className}`}
      onChange={(event) => setDraft(event.target.value)}
      onBlur={finish}
      onKeyDown={(event) => {
        if (event.key === 'Enter') finish();
        if (event.key === 'Escape') setDraft(null);
      }}
    />
  );
}
