/** Notes and photos that hang on a plane, an obstruction of it, or the panel. */
import { useState } from 'react';
import type { RoofPlane, Schemas } from '@/api/client';
import { sendPicture } from '@/api/pictures';
import { pictureAddress } from '@/api/queries';
import { useJob } from '@/plan/JobContext';
import { Button } from '@/ui/Button';
import { FilePick } from '@/ui/FilePick';
import { useNotify } from '@/ui/Notices';
import { TypedField } from '@/ui/TypedField';

interface NotesFaceProps {
  /** Without a plane the notes are those of the panel. */
  plane?: RoofPlane | undefined;
  obstruction?: Schemas['Obstruction'] | undefined;
}

export function NotesFace({ plane, obstruction }: NotesFaceProps) {
  const { job, edit, act } = useJob();
  const notify = useNotify();
  const [adding, setAdding] = useState(false);
  const planeId = plane?.id ?? null;
  const notes = job.survey.attachments.filter((a) => a.plane_id === planeId);
  const on = obstruction?.name ?? plane?.name ?? 'the panel';
  const nameOf = (note: Schemas['Attachment']) =>
    plane?.obstructions.find((o) => o.id === note.obstruction_id)?.name ?? plane?.name ?? 'Panel';
  const add = (text: string, picture: Schemas['Picture'] | null) =>
    edit({
      kind: 'add-attachment',
      text,
      picture,
      plane_id: planeId,
      obstruction_id: obstruction?.id ?? null,
    });
  const photo = (file: File) =>
    void sendPicture(file)
      .then((picture) => add('', picture))
      .catch((error: Error) => notify({ text: error.message, tone: 'stop' }));
  return (
    <div className="flex flex-col gap-1.5">
      {adding ? (
        <TypedField
          label={`New note on ${on}`}
          value=""
          placeholder={`note on ${on}`}
          width={270}
          align="left"
          tall
          focusNow
          commit={(text) => add(text, null).then(() => setAdding(false))}
          onLeave={() => setAdding(false)}
        />
      ) : (
        <span className="flex flex-wrap gap-1.5">
          <Button onClick={() => setAdding(true)}>Note on {on}</Button>
          <FilePick label="Photo" accept="image/*" onFile={photo} />
        </span>
      )}
      {notes.map((note) => (
        <div key={note.id} className="flex items-start gap-2">
          {note.picture ? (
            <a
              href={pictureAddress(note.picture.sha256)}
              target="_blank"
              rel="noreferrer"
              className="block h-[52px] w-[72px] shrink-0 overflow-hidden rounded-sm border border-rule"
            >
              <img
                src={pictureAddress(note.picture.sha256)}
                alt={`${nameOf(note)}${note.text ? `: ${note.text}` : ''}`}
                loading="lazy"
                className="h-full w-full object-cover text-xs"
              />
            </a>
          ) : (
            <span className="w-[72px] shrink-0 truncate pt-1 text-xs text-ink-2">
              {nameOf(note)}
            </span>
          )}
          <TypedField
            label={`Note on ${nameOf(note)}`}
            value={note.text}
            placeholder={nameOf(note)}
            width={190}
            align="left"
            tall
            commit={(text) => edit({ kind: 'set-attachment-text', attachment_id: note.id, text })}
          />
          <button
            type="button"
            aria-label={`Remove the ${note.picture ? 'photo' : 'note'} on ${nameOf(note)}`}
            className="min-h-6 min-w-6 text-patina"
            onClick={() => act({ kind: 'remove-attachment', attachment_id: note.id })}
          >
            ×
          </button>
        </div>
      ))}
    </div>
  );
}
