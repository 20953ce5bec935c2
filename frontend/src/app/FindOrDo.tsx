/** Find anything of the job, or do something, by typing a few letters of the words for it. */
import { type KeyboardEvent, useId, useRef, useState } from 'react';
import { Panel } from '@/ui/Panel';
import { type Findable, matching } from './matching';
import { type Going, useFindables } from './useFindables';
import { useShelfFound } from './useShelfFound';

interface FindOrDoProps {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  going: Going;
}

/** More are told by their number: a longer word finds fewer. */
const SHOWN = 40;

export function FindOrDo({ open, onOpenChange, going }: FindOrDoProps) {
  // Whatever was gone to takes the focus itself; left without going, it goes back.
  const went = useRef(false);
  const change = (opens: boolean, goes = false) => {
    went.current = goes;
    onOpenChange(opens);
  };
  return (
    <Panel
      title="Find or do"
      description="A step, a view, a field, a module, a check, equipment, or a deed: type a few letters. Enter takes the marked one."
      open={open}
      onOpenChange={change}
      keepsFocus={() => went.current}
    >
      <Finder going={going} onDone={() => change(false, true)} />
    </Panel>
  );
}

function Finder({ going, onDone }: { going: Going; onDone: () => void }) {
  const [typed, setTyped] = useState('');
  const [marked, setMarked] = useState(0);
  const listId = useId();
  const findables = useFindables(going);
  const onShelf = useShelfFound(typed, going.visit);
  const found = [...matching(findables, typed), ...onShelf];
  const shown = found.slice(0, SHOWN);
  const run = (one: Findable | undefined) => {
    if (!one) return;
    onDone();
    one.run();
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const to = {
      ArrowDown: Math.min(marked + 1, shown.length - 1),
      ArrowUp: Math.max(marked - 1, 0),
    }[event.key];
    if (event.key === 'Enter') {
      // What it goes to has the focus at once: the same key must not press that too.
      event.preventDefault();
      run(shown[marked]);
    }
    if (to === undefined) return;
    event.preventDefault();
    setMarked(to);
    document.getElementById(`${listId}-${to}`)?.scrollIntoView({ block: 'nearest' });
  };
  return (
    <>
      <input
        // biome-ignore lint/a11y/noAutofocus: the panel was opened to type
        autoFocus
        role="combobox"
        aria-label="Find or do"
        aria-expanded="true"
        aria-controls={listId}
        aria-activedescendant={shown.length > 0 ? `${listId}-${marked}` : undefined}
        autoComplete="off"
        spellCheck={false}
        value={typed}
        onChange={(event) => {
          setTyped(event.target.value);
          setMarked(0);
        }}
        onKeyDown={onKeyDown}
        className="mb-2 h-9 w-full rounded-md border border-field bg-sheet px-3 text-base"
      />
      <div id={listId} role="listbox" aria-label="Found">
        {shown.map((one, i) => (
          // biome-ignore lint/a11y/useKeyWithClickEvents: the keys are the field's, which keeps the focus
          <div
            key={`${one.kind} ${one.name}`}
            id={`${listId}-${i}`}
            role="option"
            tabIndex={-1}
            aria-selected={i === marked}
            className={`flex min-h-8 cursor-pointer items-center justify-between gap-3 rounded-sm px-3 text-sm hover:bg-patina-wash ${i === marked ? 'bg-paper font-medium' : ''}`}
            onClick={() => run(one)}
          >
            <span>{one.name}</span>
            <span className="text-xs font-normal whitespace-nowrap text-ink-2">{one.kind}</span>
          </div>
        ))}
      </div>
      <p role="status" className="px-3 py-1 text-sm text-ink-2">
        {found.length === 0 && 'Nothing goes by that name here.'}
        {found.length > SHOWN && `${found.length - SHOWN} more: type on to narrow them.`}
      </p>
    </>
  );
}
