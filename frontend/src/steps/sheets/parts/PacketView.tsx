/** What utility and authority want, what is there of it, what was sent and answered, and practice. */
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { OPTION, pathOf } from '@/api/asking';
import { api, foundOf, type Schemas, sendFile } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { Button } from '@/ui/Button';
import { Card } from '@/ui/Card';
import { Choice } from '@/ui/Choice';
import { FileLink } from '@/ui/FileLink';
import { FilePick } from '@/ui/FilePick';
import { Failed, Waiting } from '@/ui/States';
import { TypedField } from '@/ui/TypedField';
import { useTried } from '@/ui/useTried';
import { packetFile, packetQuery } from '../queries';
import { LogCard } from './LogCard';

type To = Schemas['Addressee'];
const WHO: Record<To, string> = { utility: 'Utility', authority: 'Authority' };

export function PacketStepView() {
  const { at, job, edit } = useJob();
  const [to, setTo] = useState<To>('utility');
  const { data: packet, error, isPlaceholderData } = useQuery(packetQuery(at, to));
  if (error) return <Failed error={error} />;
  if (!packet) return <Waiting shows="What they want, and what is there of it.">Looking</Waiting>;
  const paper = job.unit === 'ft' ? 'Letter' : 'A4';
  return (
    <div className={`flex min-h-0 grow flex-col ${isPlaceholderData ? 'opacity-60' : ''}`}>
      <div className="for-the-hand flex flex-wrap items-center gap-2 px-3.5 py-1.5 text-sm">
        {(Object.keys(WHO) as To[]).map((who) => (
          <Button
            key={who}
            weight={who === to ? 'pressed' : 'plain'}
            aria-pressed={who === to}
            onClick={() => setTo(who)}
          >
            {WHO[who]}
          </Button>
        ))}
        <FileLink href={packetFile(at, to, paper)} shown>
          Packet (PDF)
        </FileLink>
        <span role="status" className={packet.lacking > 0 ? 'text-warn' : 'text-ink-2'}>
          {packet.lacking > 0
            ? `${packet.lacking} of ${packet.wanted.length} still missing`
            : `All ${packet.wanted.length} are there`}
          {`; ${packet.standing}`}
        </span>
        <span className="grow" />
        <TypedField
          label="Equipment ordered on"
          value={job.paperwork.ordered_on ?? ''}
          placeholder="not yet"
          showLabel
          width={104}
          commit={(typed) => edit({ kind: 'set-paperwork-field', field: 'ordered_on', typed })}
        />
      </div>
      {packet.amiss.map((told) => (
        <p
          key={told}
          role="alert"
          className="mx-3.5 mb-1 rounded-md border border-warn bg-warn-wash px-3 py-1.5 text-sm"
        >
          {told}
        </p>
      ))}
      <div className="flex min-h-0 grow gap-3 p-3.5 pt-1 max-lg:flex-col max-lg:overflow-y-auto">
        <WantedCard packet={packet} to={to} />
        <LogCard packet={packet} to={to} practise={(course) => practise(course)} />
      </div>
    </div>
  );

  async function practise(course: Schemas['Course']) {
    const entries = await foundOf(
      api.POST(`${OPTION}/packets/{to}/practice`, {
        params: { path: { ...pathOf(at).path, to } },
        body: { course },
      }),
    );
    await edit({ kind: 'record-practice', entries });
  }
}

const BY: Record<Schemas['WantedBy'], string> = {
  file: 'a file',
  tick: 'a tick',
  sheet: 'a sheet',
  review: 'the licensed person’s name',
};

function WantedCard({ packet, to }: { packet: Schemas['PacketView']; to: To }) {
  const { edit, act } = useJob();
  const [by, setBy] = useState<'file' | 'tick'>('file');
  return (
    <Card
      title="What they want"
      aside={packet.usual ? 'as is common; check their own form' : 'your list'}
      className="min-w-0 grow basis-3/5"
      scrolls
    >
      <ul>
        {packet.wanted.map(({ wanted, there, told }) => (
          <WantedRow key={wanted.id} to={to} wanted={wanted} there={there} told={told} />
        ))}
      </ul>
      <div className="mt-2 flex flex-wrap items-center gap-2 text-sm">
        <TypedField
          label="They also want"
          value=""
          placeholder="such as a roof survey"
          showLabel
          width={220}
          align="left"
          commit={(words) =>
            words.trim()
              ? edit({
                  kind: 'keep-wanted',
                  to,
                  wanted: {
                    id: `own-${Date.now().toString(36)}`,
                    words,
                    by,
                    sheet: '',
                    done: false,
                    files: [],
                  },
                })
              : Promise.resolve()
          }
        />
        <Choice
          label="Settled by"
          value={by}
          items={[
            { value: 'file', label: 'settled by a file' },
            { value: 'tick', label: 'settled by a tick' },
          ]}
          onChange={(value) => setBy(value as 'file' | 'tick')}
        />
        {!packet.usual && (
          <Button onClick={() => void act({ kind: 'restore-wanted', to })}>The usual list</Button>
        )}
      </div>
    </Card>
  );
}

interface WantedRowProps {
  to: To;
  wanted: Schemas['Wanted'];
  there: boolean;
  told: string;
}

function WantedRow({ to, wanted, there, told }: WantedRowProps) {
  const { act, edit } = useJob();
  const { tried, problem } = useTried('It was not attached.');
  const keep = (change: Partial<Schemas['Wanted']>) =>
    edit({ kind: 'keep-wanted', to, wanted: { ...wanted, ...change } });
  const attach = (file: File) =>
    tried(async () => {
      const found = await sendFile<Schemas['AttachedFile']>('/api/attached', file);
      await keep({ files: [...(wanted.files ?? []), found] });
    });
  const byHand = wanted.by === 'tick' || wanted.by === 'file';
  return (
    <li className="border-b border-rule py-1.5 text-sm">
      <div className="flex items-center gap-x-1.5 max-md:flex-wrap">
        <span
          className={`w-[62px] shrink-0 text-xs font-semibold ${there ? 'text-patina' : 'text-warn'}`}
        >
          {there ? '✓ there' : '○ missing'}
        </span>
        <span className="min-w-[120px] grow basis-0">
          {wanted.words}
          <span className="block text-xs text-ink-2" title={`Settled by ${BY[wanted.by]}`}>
            {told}
          </span>
        </span>
        {wanted.by === 'file' && (
          <FilePick
            label="Attach"
            accept=".pdf,.jpg,.jpeg,.png"
            onFile={(file) => void attach(file)}
          />
        )}
        {byHand && (
          <Button
            aria-pressed={wanted.done ?? false}
            onClick={() => void keep({ done: !wanted.done })}
          >
            {wanted.by === 'file'
              ? wanted.done
                ? 'Not sent'
                : 'Sent apart'
              : wanted.done
                ? 'Not done'
                : 'Done'}
          </Button>
        )}
        <Button
          aria-label={`Leave out: ${wanted.words}`}
          title="They do not want it"
          onClick={() => void act({ kind: 'drop-wanted', to, wanted_id: wanted.id })}
        >
          ×
        </Button>
      </div>
      {(wanted.files ?? []).map((file) => (
        <div key={file.sha256} className="ml-[72px] flex items-center gap-2 text-xs">
          <a
            className="inline-flex min-h-6 items-center underline"
            href={`/api/attached/${file.sha256}.pdf`}
            target="_blank"
            rel="noreferrer"
          >
            {file.file}
          </a>
          {file.pages} {file.pages === 1 ? 'page' : 'pages'}
          <button
            type="button"
            className="min-h-6 min-w-6 underline"
            onClick={() =>
              void keep({ files: (wanted.files ?? []).filter((f) => f.sha256 !== file.sha256) })
            }
          >
            take off
          </button>
        </div>
      ))}
      {problem && (
        <p role="alert" className="ml-[72px] text-sm text-stop">
          {problem}
        </p>
      )}
    </li>
  );
}
