/**
 * A figure that is typed over: Enter or leaving the field commits, Escape restores.
 * While it is edited the echo says what was understood; a refusal stays under the field,
 * with what was typed, until it is put right.
 */
import {
  type ChangeEvent,
  type FocusEvent,
  type KeyboardEvent,
  useId,
  useRef,
  useState,
} from 'react';

interface TypedFieldProps {
  label: string;
  value: string;
  commit: (typed: string) => Promise<unknown>;
  echo?: (typed: string) => string;
  placeholder?: string;
  width?: number;
  align?: 'center' | 'right' | 'left';
  showLabel?: boolean;
  noteAbove?: boolean;
  /** Long words: two lines; Enter still takes them. */
  tall?: boolean;
  /** How sure the figure is: taken over from elsewhere, in doubt, or wanted. */
  tone?: 'plain' | 'derived' | 'doubt' | 'wanted';
  /** The person has just asked to type here. */
  focusNow?: boolean;
  /** Left without a word being taken. */
  onLeave?: () => void;
}

const TONE = {
  plain: 'border-field',
  derived: 'border-dashed border-field text-ink-2',
  doubt: 'border-warn bg-warn-wash',
  wanted: 'border-dashed border-copper',
};

type Typed = HTMLInputElement | HTMLTextAreaElement;
const ALIGN = { center: 'text-center', right: 'text-right', left: 'text-left' };

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
  tall = false,
  tone = 'plain',
  focusNow = false,
  onLeave,
}: TypedFieldProps) {
  const [draft, setDraft] = useState<string | null>(null);
  // What stood here when the field was entered: an answer that comes late must not slip under
  // the cursor.
  const [held, setHeld] = useState<string | null>(null);
  const [refusal, setRefusal] = useState('');
  // What is on its way: leaving the field after Enter does not send it again.
  const sent = useRef<string | null>(null);
  const id = useId();

  const restore = () => {
    setDraft(null);
    setHeld(null);
    setRefusal('');
  };
  const finish = async () => {
    // A figure taken over from elsewhere may be typed again as it is: then it is one's own.
    const same = draft === (held ?? value) && tone !== 'derived';
    if (draft === null || same) {
      restore();
      onLeave?.();
      return;
    }
    if (draft === sent.current) return;
    sent.current = draft;
    try {
      await commit(draft);
      // What was typed on meanwhile stays.
      setDraft((now) => (now === draft ? null : now));
      setHeld(null);
      setRefusal('');
    } catch (error) {
      // A save that lost to another tab is kept elsewhere; typing it here again is not wanted.
      if (error instanceof Error && 'code' in error && error.code === 'save.conflict') restore();
      else setRefusal(error instanceof Error ? error.message : String(error));
    } finally {
      sent.current = null;
    }
  };

  const Box = tall ? 'textarea' : 'input';
  const note = refusal || (draft !== null && echo ? echo(draft) : '');
  return (
    <span className={`relative ${showLabel ? 'flex items-center justify-between gap-2' : ''}`}>
      <label htmlFor={id} className={showLabel ? 'text-sm' : 'sr-only'}>
        {label}
      </label>
      <Box
        id={id}
        value={draft ?? held ?? value}
        placeholder={placeholder}
        autoComplete="off"
        spellCheck={false}
        autoFocus={focusNow}
        aria-invalid={refusal !== ''}
        aria-describedby={note ? `${id}-note` : undefined}
        {...(tall ? { rows: 2 } : {})}
        onChange={(event: ChangeEvent<Typed>) => {
          setDraft(event.target.value);
          setRefusal('');
        }}
        onFocus={(event: FocusEvent<Typed>) => {
          setHeld(value);
          event.target.select();
        }}
        // What was refused stays to be put right; only Enter tries the same text again.
        onBlur={() => void (refusal || finish())}
        onKeyDown={(event: KeyboardEvent) => {
          if (event.key === 'Enter') {
            event.preventDefault();
            void finish();
          }
          if (event.key === 'Escape') {
            restore();
            onLeave?.();
          }
          event.stopPropagation();
        }}
        style={{ width }}
        className={`rounded-md border bg-sheet px-1.5 font-figure ${tall ? 'resize-none py-0.5 text-sm' : 'h-[26px] text-base'} ${ALIGN[align]} ${refusal ? 'border-stop' : draft !== null ? 'border-copper' : TONE[tone]}`}
      />
      {note && (
        <span
          id={`${id}-note`}
          role={refusal ? 'alert' : 'status'}
          className={`absolute z-30 ${noteAbove ? 'bottom-full mb-1' : 'top-full mt-1'} w-max whitespace-normal ${showLabel ? 'max-w-[164px]' : 'max-w-[260px]'} rounded-md border px-2 py-1 text-left text-xs ${showLabel ? 'right-0' : 'left-0'} ${refusal ? 'border-stop bg-stop-wash text-stop' : 'border-rule bg-sheet text-ink-2'}`}
        >
          {note}
        </span>
      )}
    </span>
  );
}
