/** The slots of the work's records: looked at, torque, tilt, photos. */
import { useState } from 'react';
import type { Schemas } from '@/api/client';
import { sendPicture } from '@/api/pictures';
import { pictureAddress } from '@/api/queries';
import { useJob } from '@/plan/JobContext';
import { useFileRead } from '@/ui/useFileRead';
import { useTried } from '@/ui/useTried';
import { BigButton, BigField, BigFile, TakeOff, today } from './hand';

type Seen = Schemas['SlotSeen'];

const KINDS: Record<Schemas['SlotKind'], string> = {
  inspection: 'Looked at',
  torque: 'Torque',
  tilt: 'Tilt',
  photo: 'Photos',
};
const INK: Record<Schemas['SlotState'], string> = {
  open: 'text-ink-2',
  fine: 'text-patina',
  amiss: 'text-stop',
  doubtful: 'text-warn',
};

export function Slots({ slots, who }: { slots: readonly Seen[]; who: string }) {
  return (
    <div className="space-y-2">
      {(Object.keys(KINDS) as Schemas['SlotKind'][]).map((kind) => {
        const mine = slots.filter((s) => s.slot.kind === kind);
        const left = mine.filter((s) => s.state === 'open').length;
        return (
          <details
            key={kind}
            open={kind === 'inspection'}
            className="rounded-lg border border-rule bg-sheet px-3"
          >
            <summary className="flex min-h-11 cursor-pointer items-center gap-2 text-sm font-semibold">
              {KINDS[kind]}
              <span className="font-normal text-ink-2">
                {mine.length - left} of {mine.length}
              </span>
            </summary>
            <ul>
              {mine.map((seen) => (
                <SlotRow key={seen.slot.id} seen={seen} who={who} />
              ))}
            </ul>
          </details>
        );
      })}
    </div>
  );
}

function SlotRow({ seen, who }: { seen: Seen; who: string }) {
  const { edit, act } = useJob();
  const { slot, entry } = seen;
  const [typed, setTyped] = useState('');
  const { tried, problem } = useTried('It was not written.');
  const measured = slot.kind === 'torque' || slot.kind === 'tilt';
  const write = (fine: boolean | null, picture = '') =>
    tried(async () => {
      await edit({
        kind: 'write-record',
        slot: slot.id,
        typed,
        fine,
        tool: '',
        who,
        day: today(),
        note: '',
        picture,
      });
      setTyped('');
    });
  const photo = useFileRead(sendPicture, (kept) => write(true, kept.sha256));
  return (
    <li className="flex flex-wrap items-center gap-2 border-t border-rule py-1 text-sm">
      <span className="min-w-0 grow basis-48">
        {slot.title}
        {slot.before && <span className="text-xs text-warn"> {slot.before}</span>}
        <span className={`block text-xs ${INK[seen.state]}`}>
          {entry
            ? `${entry.typed ? `${entry.typed} ${slot.unit}, ` : ''}${seen.state}${seen.told ? `: ${seen.told}` : ''}, ${entry.day}${entry.who ? `, ${entry.who}` : ''}`
            : slot.due != null
              ? `due ${slot.due} ${slot.unit} ± ${slot.off?.toFixed(1)}`
              : 'open'}
        </span>
      </span>
      {measured && (
        <BigField quiet label={`${slot.title}, ${slot.unit}`} value={typed} onChange={setTyped} />
      )}
      {entry?.picture && (
        <a
          href={pictureAddress(entry.picture)}
          target="_blank"
          rel="noreferrer"
          className="inline-flex min-h-11 items-center"
        >
          <img
            src={pictureAddress(entry.picture)}
            alt={slot.title}
            className="h-11 w-16 rounded-sm object-cover"
          />
        </a>
      )}
      {slot.kind === 'photo' && (
        <BigFile
          label={photo.reading ? 'Sending' : 'Photo'}
          name={`Photo: ${slot.title}`}
          accept="image/*"
          onFile={photo.read}
        />
      )}
      <BigButton
        aria-label={`Fine: ${slot.title}`}
        onClick={() => void write(measured && typed ? null : true)}
      >
        {measured && typed ? 'Write' : slot.kind === 'photo' ? 'Taken' : 'Fine'}
      </BigButton>
      {slot.kind !== 'photo' && (
        <BigButton aria-label={`Amiss: ${slot.title}`} onClick={() => void write(false)}>
          Amiss
        </BigButton>
      )}
      {seen.at != null && (
        <TakeOff
          label={`Take off: ${slot.title}`}
          onClick={() => void act({ kind: 'drop-record', at: seen.at ?? 0 })}
        />
      )}
      {(problem || photo.problem) && (
        <p role="alert" className="w-full text-stop">
          {problem || photo.problem}
        </p>
      )}
    </li>
  );
}
