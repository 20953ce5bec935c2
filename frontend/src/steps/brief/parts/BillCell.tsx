/** One cell: what was typed is committed as it stands when the cell is left, readable or not. */
import { type ClipboardEvent, type KeyboardEvent, useState } from 'react';

interface BillCellProps {
  name: string;
  label: string;
  value: string;
  width: number;
  figures: boolean;
  faulty: boolean;
  commit: (typed: string) => Promise<unknown>;
  onKeyDown: (event: KeyboardEvent) => void;
  onPaste: (event: ClipboardEvent) => void;
}

export function BillCell(props: BillCellProps) {
  const { name, label, value, width, figures, faulty, commit, onKeyDown, onPaste } = props;
  const [draft, setDraft] = useState<string | null>(null);
  // As it stood on entering: a late answer must not slip under the cursor.
  const [held, setHeld] = useState<string | null>(null);
  const finish = async () => {
    if (draft !== null && draft !== (held ?? value)) {
      try {
        await commit(draft);
      } catch {
        // The row was refused as a whole (no room): the words stay to be moved.
        return;
      }
    }
    setDraft(null);
    setHeld(null);
  };
  return (
    <input
      data-cell={name}
      aria-label={label}
      aria-invalid={faulty}
      value={draft ?? held ?? value}
      autoComplete="off"
      spellCheck={false}
      style={{ width }}
      className={`h-6 rounded-sm border bg-sheet px-1.5 font-figure text-sm ${figures ? 'text-right' : ''} ${faulty ? 'border-stop' : draft !== null ? 'border-copper' : 'border-rule'}`}
      onChange={(event) => setDraft(event.target.value)}
      onFocus={(event) => {
        setHeld(value);
        event.target.select();
      }}
      onBlur={() => void finish()}
      onPaste={onPaste}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key === 'Escape') setDraft(null);
        else onKeyDown(event);
      }}
    />
  );
}
