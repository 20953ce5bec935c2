/** The built option beside its drawing, and why something is otherwise. */
import { useState } from 'react';
import type { Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { useTried } from '@/ui/useTried';
import { BigButton, BigField, TakeOff, today } from './hand';

export function BuiltCard({ found, who }: { found: Schemas['RecordsView']; who: string }) {
  const { at, state, option, edit, act } = useJob();
  const [words, setWords] = useState('');
  const { tried, problem } = useTried('It was not written.');
  const { built } = found;
  return (
    <section aria-label="As built" className="rounded-lg border border-rule bg-sheet p-3 text-sm">
      <h2 className="font-semibold">As built</h2>
      {!built && (
        <BigButton
          weight="main"
          className="mt-1"
          onClick={() =>
            void act({
              kind: 'mark-built',
              option_id: at.optionId,
              revision: state.revision,
              day: today(),
              who,
            })
          }
        >
          Option {option.id.toUpperCase()} is built
        </BigButton>
      )}
      {built && (
        <>
          <p>
            Option {built.option_id.toUpperCase()}, {built.name}, marked {built.day} at revision{' '}
            {built.revision}
            {built.who && ` by ${built.who}`}.
          </p>
          {!found.here && <p className="text-warn">You look at another option than was built.</p>}
          <ul className="list-disc pl-5">
            {built.otherwise.map((told) => (
              <li key={told}>{told}</li>
            ))}
          </ul>
          {built.otherwise.length === 0 && (
            <p className="text-ink-2">
              Nothing differs from the drawing. What is changed under Array and Strings from now on
              is told here; rules and year follow it.
            </p>
          )}
          <ul>
            {built.notes.map((note, n) => (
              <li key={`${note.day} ${note.words}`} className="flex items-center gap-2">
                <span className="font-figure">{note.day}</span>
                <span className="grow">
                  {note.words} <span className="text-xs text-ink-2">{note.who}</span>
                </span>
                <TakeOff
                  label={`Take off: ${note.words}`}
                  onClick={() => void act({ kind: 'drop-site-note', at: n })}
                />
              </li>
            ))}
          </ul>
          <form
            className="mt-1 flex flex-wrap items-end gap-2"
            onSubmit={(event) => {
              event.preventDefault();
              void tried(async () => {
                await edit({ kind: 'note-site-change', day: today(), who, words });
                setWords('');
              });
            }}
          >
            <BigField
              label="Why something is otherwise"
              value={words}
              onChange={setWords}
              className="w-64 max-w-full"
            />
            <BigButton type="submit">Note it</BigButton>
            <BigButton onClick={() => void act({ kind: 'unmark-built' })}>Not built yet</BigButton>
          </form>
        </>
      )}
      {problem && (
        <p role="alert" className="text-stop">
          {problem}
        </p>
      )}
    </section>
  );
}
