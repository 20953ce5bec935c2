/** Notes that hang on a plane, an obstruction of it, or the panel. */
import { useState } from 'react';
import type { RoofPlane, Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { Button } from '@/ui/Button';
import { TypedField } from '@/ui/TypedField';

interface NotesFaceProps {
  /** Without a plane the notes are those of the panel. */
  plane?: RoofPlane | undefined;
  obstruction?: Schemas['Obstruction'] | undefined;
}

export function NotesFace({ plane, obstruction }: NotesFaceProps) {
  const { job, edit, act } = useJob();
  const [adding, setAdding] = useState(false);
  const planeId = plane?.id ?? null;
  const notes = job.survey.attachments.filter((a) => a.plane_id === planeId);
  const on = obstruction?.name ?? plane?.name ?? 'the panel';
  const nameOf = (id: string | null) => plane?.obstructions.find((o) => o.id === id)?.name;
  return (
    <div className="flex flex-col gap-1.5">
      {notes.map((note) => (
        <div key={note.id} className="flex items-start gap-2">
          <span className="w-[70px] shrink-0 truncate pt-1 text-xs text-ink-2">
            {nameOf(note.obstruction_id) ?? plane?.name ?? 'Panel'}
          </span>
          <TypedField
            label={`Note on ${nameOf(note.obstruction_id) ?? plane?.name ?? 'the panel'}`}
            value={note.text}
            width={190}
            align="left"
            tall
            commit={(text) => edit({ kind: 'set-attachment-text', attachment_id: note.id, text })}
          />
          <button
            type="button"
            aria-label="Remove the note"
            className="min-h-6 min-w-6 text-patina"
            onClick={() => act({ kind: 'remove-attachment', attachment_id: note.id })}
          >
            ×
          </button>
        </div>
      ))}
      {adding ? (
        <TypedField
          label={`New note on ${on}`}
          value=""
          placeholder={`note on ${on}`}
          width={270}
          align="left"
          tall
          focusNow
          commit={(text) =>
            edit({
              kind: 'add-attachment',
              text,
              picture: null,
              plane_id: planeId,
              obstruction_id: obstruction?.id ?? null,
            }).then(() => setAdding(false))
          }
          onLeave={() => setAdding(false)}
        />
      ) : (
        <span>
          <Button onClick={() => setAdding(true)}>Note on {on}</Button>
        </span>
      )}
    </div>
  );
}
