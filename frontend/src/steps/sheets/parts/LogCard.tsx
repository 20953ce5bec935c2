/** The approval log: what was sent, asked, answered and decided, with the portal to practise on. */
import { useState } from 'react';
import type { Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { Button } from '@/ui/Button';
import { Card } from '@/ui/Card';
import { Choice } from '@/ui/Choice';
import { useTried } from '@/ui/useTried';

const KINDS: Record<Schemas['LogKind'], string> = {
  sent: 'sent',
  query: 'they ask',
  answer: 'we answer',
  approved: 'approved',
  limited: 'approved with a limit',
  delayed: 'put off',
  refused: 'refused',
  note: 'note',
};
const COURSES: Record<Schemas['Course'], string> = {
  'by-packet': 'answers by the packet',
  accepts: 'accepts',
  asks: 'asks for something',
  limits: 'limits what is sent out',
  delays: 'puts it off',
  refuses: 'refuses',
};
const listed = <Id extends string>(names: Record<Id, string>) =>
  (Object.keys(names) as Id[]).map((value) => ({ value, label: names[value] }));
const FIELD = 'h-[27px] rounded-md border border-field bg-sheet px-2 text-sm';

interface LogCardProps {
  packet: Schemas['PacketView'];
  to: Schemas['Addressee'];
  practise: (course: Schemas['Course']) => Promise<unknown>;
}

export function LogCard({ packet, to, practise }: LogCardProps) {
  const { act } = useJob();
  const [course, setCourse] = useState<Schemas['Course']>('by-packet');
  const { tried, problem } = useTried('It was not written.');
  return (
    <Card title="Approval log" className="min-w-0 grow basis-2/5" scrolls>
      {packet.log.length === 0 && (
        <p className="text-sm text-ink-2">
          Nothing sent, asked or answered yet. Write down each letter with its day: the plan of work
          follows it.
        </p>
      )}
      <ul aria-label="Log">
        {packet.log.map(({ at, entry }) => (
          <li key={at} className="flex gap-2 border-b border-rule py-1 text-sm">
            <span className="w-[76px] shrink-0 font-figure">{entry.day}</span>
            <span className="grow">
              <b>{KINDS[entry.kind]}</b>
              {entry.practice && (
                <span className="ml-1 rounded-sm border border-warn px-1 text-xs text-warn">
                  practice
                </span>
              )}{' '}
              {entry.words}
              {entry.limit_kw != null && ` (at most ${entry.limit_kw} kW)`}
            </span>
            <button
              type="button"
              aria-label={`Take off: ${entry.day}, ${KINDS[entry.kind]}`}
              className="min-h-6 min-w-6"
              onClick={() => void act({ kind: 'drop-from-log', at })}
            >
              ×
            </button>
          </li>
        ))}
      </ul>
      <WriteLine to={to} />
      <div className="mt-3 border-t border-rule pt-2">
        <h3 className="text-sm font-semibold">Practise with a portal</h3>
        <p className="mb-1 text-xs text-ink-2">
          A simulated one with invented rules: nothing leaves this machine, and what it says is no
          approval.
        </p>
        <div className="flex flex-wrap items-center gap-2">
          <Choice
            label="How the portal answers"
            value={course}
            items={listed(COURSES)}
            onChange={(value) => setCourse(value as Schemas['Course'])}
          />
          <Button onClick={() => void tried(() => practise(course))}>
            Send to the practice portal
          </Button>
          {packet.practised && (
            <Button onClick={() => void act({ kind: 'clear-practice' })}>Clear practice</Button>
          )}
        </div>
        {problem && (
          <p role="alert" className="mt-1 text-sm text-stop">
            {problem}
          </p>
        )}
      </div>
    </Card>
  );
}

function WriteLine({ to }: { to: Schemas['Addressee'] }) {
  const { edit } = useJob();
  const [what, setWhat] = useState<Schemas['LogKind']>('sent');
  const [day, setDay] = useState('');
  const [words, setWords] = useState('');
  const [limit, setLimit] = useState('');
  const { tried, problem } = useTried('It was not written.');
  const write = async () => {
    if (!(await tried(() => edit({ kind: 'write-to-log', to, what, day, words, limit })))) return;
    setWords('');
    setLimit('');
  };
  return (
    <form
      className="mt-2 flex flex-wrap items-center gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        void write();
      }}
    >
      <input
        aria-label="Day"
        placeholder="day, 2026-12-02"
        value={day}
        onChange={(event) => setDay(event.target.value)}
        className={`${FIELD} w-[124px]`}
      />
      <Choice
        label="What happened"
        value={what}
        items={listed(KINDS)}
        onChange={(value) => setWhat(value as Schemas['LogKind'])}
      />
      {what === 'limited' && (
        <input
          aria-label="Limit, kW"
          placeholder="kW"
          value={limit}
          onChange={(event) => setLimit(event.target.value)}
          className={`${FIELD} w-16`}
        />
      )}
      <input
        aria-label="In words"
        placeholder="in words, reference number"
        value={words}
        onChange={(event) => setWords(event.target.value)}
        className={`${FIELD} min-w-[120px] grow`}
      />
      <Button type="submit">Write down</Button>
      {problem && (
        <p role="alert" className="w-full text-sm text-stop">
          {problem}
        </p>
      )}
    </form>
  );
}
