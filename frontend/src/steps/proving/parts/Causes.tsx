/** Causes by how likely they are, what each explains, what to read next, what nobody should try. */
import { useState } from 'react';
import type { Schemas } from '@/api/client';
import { BigButton, percent } from './hand';

type Diagnosis = Schemas['Diagnosis'];
type Cause = Schemas['CauseTold'];
const EXPLAINED = 3;

const LOOK: Record<Schemas['FaultVerdict'], string> = {
  normal: 'border-patina bg-patina-wash',
  sure: 'border-stop bg-stop-wash',
  likely: 'border-warn bg-warn-wash',
  open: 'border-warn bg-warn-wash',
  'nothing-fits': 'border-warn bg-warn-wash',
};

export function VerdictLine({ diagnosis }: { diagnosis: Diagnosis }) {
  return (
    <p
      role="status"
      className={`rounded-md border px-3 py-2 text-sm font-semibold ${LOOK[diagnosis.verdict]}`}
    >
      {diagnosis.told}
    </p>
  );
}

export function CauseList({ diagnosis }: { diagnosis: Diagnosis }) {
  return (
    <ol aria-label="Causes, the likeliest first">
      {diagnosis.causes.map((cause) => (
        <CauseRow key={`${cause.code} ${cause.where}`} cause={cause} />
      ))}
    </ol>
  );
}

function CauseRow({ cause }: { cause: Cause }) {
  const [open, setOpen] = useState(false);
  const odd = cause.readings.filter((r) => Math.abs(r.off) > EXPLAINED);
  const name = `${cause.where}${cause.title}${cause.much}`;
  return (
    <li className="border-b border-rule">
      <button
        type="button"
        aria-expanded={open}
        onClick={() => setOpen(!open)}
        className="flex min-h-11 w-full items-center gap-2 text-left text-sm"
      >
        <span className="w-14 shrink-0 text-right font-figure font-semibold">
          {percent(cause.chance)}
        </span>
        <span className="min-w-0 grow">
          {name}
          <span className="block h-1 rounded-full bg-bar" aria-hidden="true">
            <span
              className={`block h-1 rounded-full ${cause.code === 'healthy' ? 'bg-patina' : 'bg-copper'}`}
              style={{ width: `${Math.max(1, cause.chance * 100)}%` }}
            />
          </span>
        </span>
        {!cause.fits && <span className="shrink-0 text-xs text-warn">leaves {odd.length} odd</span>}
      </button>
      {open && (
        <div className="pb-2 pl-16 text-sm">
          <ul className="text-xs text-ink-2">
            {cause.readings.map((r) => (
              <li
                key={`${r.kind} ${r.at}`}
                className={Math.abs(r.off) > EXPLAINED ? 'text-stop' : ''}
              >
                {r.told}
                {Math.abs(r.off) > EXPLAINED && ': not explained'}
              </li>
            ))}
          </ul>
          <p className="mt-1">
            {cause.mend}
            {cause.mend_min > 0 && ` About ${Math.round(cause.mend_min)} min.`}
          </p>
        </div>
      )}
    </li>
  );
}

interface NextTestsProps {
  diagnosis: Diagnosis;
  take?: (test: Schemas['NextTest']) => void;
}

export function NextTests({ diagnosis, take }: NextTestsProps) {
  if (diagnosis.next_tests.length === 0) return null;
  return (
    <section aria-label="What to read next">
      <h3 className="mt-2 text-sm font-semibold">Read next</h3>
      <ul>
        {diagnosis.next_tests.map((test) => (
          <li
            key={`${test.kind} ${test.where}`}
            className="flex flex-wrap items-center gap-2 border-b border-rule py-1 text-sm"
          >
            <span className="min-w-0 grow basis-52">
              <b>
                {test.where}
                {test.title}
              </b>{' '}
              <span className="text-xs text-ink-2">
                {Math.round(test.minutes)} min, risk {Math.round(test.risk)}, tells causes apart in{' '}
                {percent(test.settles)}. {test.how}
              </span>
            </span>
            {take && <BigButton onClick={() => take(test)}>Take it</BigButton>}
          </li>
        ))}
      </ul>
    </section>
  );
}

export function Notes({ diagnosis }: { diagnosis: Diagnosis }) {
  const { normal, weakens, inferred, unseen } = diagnosis;
  return (
    <div className="mt-2 space-y-1 text-xs">
      {normal.map((told) => (
        <p key={told}>{told}</p>
      ))}
      {weakens.map((told) => (
        <p key={told} className="text-warn">
          {told}
        </p>
      ))}
      {inferred.length > 0 && <p className="text-ink-2">Inferred: {inferred.join('; ')}.</p>}
      {unseen.length > 0 && (
        <p className="text-ink-2">No reading taken could show: {unseen.join(', ')}.</p>
      )}
    </div>
  );
}

export function Refused({ refused }: { refused: readonly Schemas['RefusedTest'][] }) {
  return (
    <details className="mt-2 rounded-md border border-stop text-sm">
      <summary className="flex min-h-11 cursor-pointer items-center px-3 font-semibold text-stop">
        Never do these; how to learn the same
      </summary>
      <ul className="px-3 pb-2">
        {refused.map((one) => (
          <li key={one.test} className="mb-1">
            <b>{one.title}</b>: {one.why}. Instead: {one.instead}
          </li>
        ))}
      </ul>
    </details>
  );
}
