/** The sum behind a check: symbols, numbers, result, limit, source, and ways out. */
import type { CheckView, Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { Button } from '@/ui/Button';
import { figure } from '@/units/format';

const STATUS: Record<Schemas['SourceStatus'], string> = {
  'from-memory': 'from memory, check it against the edition in force',
  'common-practice': 'common practice, no source',
  typed: 'as typed in this job',
  datasheet: 'datasheet',
  geometry: 'geometry of this drawing',
  brief: 'as typed in the brief',
  sample: 'invented sample, type your own',
};

export function Working({ view }: { view: CheckView }) {
  const { act } = useJob();
  const { check, lines } = view;
  return (
    <div className="mb-1.5 border-l-2 border-copper pl-2">
      <div className="rounded-sm bg-bar px-2 py-1.5 font-mono text-xs leading-[1.6] break-words">
        <div>{lines.symbols}</div>
        <div>= {lines.numbers}</div>
        <div>= {lines.result}</div>
        <div>limit {lines.limit}</div>
      </div>
      <p className="mt-1 text-xs text-ink-2">{check.reason || marginText(view)}</p>
      <ul className="mt-0.5 text-xs text-ink-2">
        {byOrigin(check.givens).map(([origin, labels]) => (
          <li key={origin}>
            {labels}: {origin}
          </li>
        ))}
        <li>
          {check.limit.label}: {check.limit.origin}
        </li>
        <li>
          Source: {check.source.document}
          {check.source.clause && ` ${check.source.clause}`} ({STATUS[check.source.status]})
        </li>
      </ul>
      {check.fixes.length > 0 && (
        <div className="mt-1.5 flex flex-wrap gap-2">
          {check.fixes.slice(0, 2).map((fix) => (
            <Button key={fix.label} weight="main" onClick={() => act(fix.edit)}>
              {fix.label}
            </Button>
          ))}
        </div>
      )}
    </div>
  );
}

/** Givens of one origin share a line. */
function byOrigin(givens: Schemas['Given'][]): [string, string][] {
  const labels = new Map<string, string[]>();
  for (const given of givens) {
    const origin = given.origin || 'not given';
    labels.set(origin, [...(labels.get(origin) ?? []), given.label]);
  }
  return [...labels].map(([origin, names]) => [origin, names.join(', ')]);
}

function marginText({ check }: CheckView): string {
  const parts = [];
  if (check.margin_frac !== null) {
    const share = figure(Math.abs(check.margin_frac) * 100, 1);
    parts.push(check.verdict === 'kept' ? `${share} % of margin` : `${share} % past the limit`);
  }
  if (check.reached_at) parts.push(check.reached_at);
  const verdict = check.verdict === 'kept' ? 'Holds.' : '';
  return parts.length ? `${parts.join('; ')}.` : verdict;
}
