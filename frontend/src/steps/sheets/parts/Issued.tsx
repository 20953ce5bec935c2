/** Sets that left the house: frozen as they are, each openable again; what has changed since the last. */
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { OPTION, pathOf } from '@/api/asking';
import { api, foundOf } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { Button } from '@/ui/Button';
import { Card } from '@/ui/Card';
import { TypedField } from '@/ui/TypedField';
import { type SetAsked, sinceQuery } from '../queries';

const FIELDS = [
  { field: 'firm', label: 'Installer', placeholder: 'not named' },
  { field: 'drawn_by', label: 'Drawn by', placeholder: 'nobody' },
  { field: 'checked_by', label: 'Checked by', placeholder: 'nobody' },
  { field: 'reviewed_by', label: 'Reviewed by, licensed', placeholder: 'nobody yet' },
  { field: 'reviewed_on', label: 'Reviewed on', placeholder: 'no day' },
] as const;

export function TitleCard() {
  const { job, edit } = useJob();
  const { paperwork } = job;
  return (
    <Card title="Title block" className="w-[330px] shrink-0" scrolls>
      <div className="flex flex-col gap-1">
        {FIELDS.map(({ field, label, placeholder }) => (
          <TypedField
            key={field}
            label={label}
            value={paperwork[field] ?? ''}
            placeholder={placeholder}
            showLabel
            width={150}
            commit={(typed) => edit({ kind: 'set-paperwork-field', field, typed })}
          />
        ))}
      </div>
    </Card>
  );
}

export function IssueCard({ asked, faults }: { asked: SetAsked; faults: number }) {
  const { at, job, edit } = useJob();
  const [what, setWhat] = useState('');
  const [problem, setProblem] = useState('');
  const [busy, setBusy] = useState(false);
  const { data: since } = useQuery(sinceQuery(at));
  const { issues } = job.paperwork;
  const issue = async () => {
    setBusy(true);
    setProblem('');
    try {
      const made = await foundOf(
        api.POST(`${OPTION}/plan-set/issue`, {
          params: pathOf(at),
          body: { ...asked, what },
        }),
      );
      await edit({ kind: 'record-issue', issue: made });
      setWhat('');
    } catch (error) {
      setProblem(error instanceof Error ? error.message : 'It was not issued.');
    } finally {
      setBusy(false);
    }
  };
  return (
    <Card title="Issued" className="min-w-[330px] grow" scrolls>
      <div className="flex flex-wrap items-center gap-2">
        <TypedField
          label="For"
          value={what}
          placeholder={`${asked.name} set`}
          showLabel
          width={170}
          commit={async (typed) => setWhat(typed)}
        />
        <Button weight="main" disabled={busy || faults > 0} onClick={() => void issue()}>
          {busy ? 'Issuing' : `Issue ${issues.length + 1}`}
        </Button>
      </div>
      {faults > 0 && (
        <p className="mt-1 text-sm text-stop">
          A sheet has a drawing fault: mend it, or take larger paper.
        </p>
      )}
      {problem && (
        <p role="alert" className="mt-1 text-sm text-stop">
          {problem}
        </p>
      )}
      {issues.length === 0 && (
        <p className="mt-1 text-sm text-ink-2">
          Nothing has left the house. An issue freezes this set as it is, with its number and day.
        </p>
      )}
      <ul className="mt-1 text-sm">
        {[...issues].reverse().map((i) => (
          <li key={i.number} className="border-b border-rule py-0.5">
            <a
              className="inline-flex min-h-6 items-center underline"
              href={`/api/issued/${i.sha256}.pdf`}
              target="_blank"
              rel="noreferrer"
            >
              Issue {i.number}
            </a>
            , {i.day}: {i.what}, option {i.option_id.toUpperCase()}, {i.paper}, of revision{' '}
            {i.revision}
          </li>
        ))}
      </ul>
      {issues.length > 0 && since && (
        <p className="mt-1 text-sm" role="status">
          {since.length === 0
            ? 'Nothing was changed since.'
            : `Changed since: ${since.slice(0, 12).join('; ')}${since.length > 12 ? ` and ${since.length - 12} more` : ''}.`}
        </p>
      )}
    </Card>
  );
}
