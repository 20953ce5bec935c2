/** What one of them takes, in words for the homeowner, and through the months. */

import { useQuery } from '@tanstack/react-query';
import type { Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { Button } from '@/ui/Button';
import { Card } from '@/ui/Card';
import { capital, figure, MONTHS } from '@/units/format';
import { atMeterQuery, type ShadeReport } from '../queries';

interface CulpritWordsProps {
  shade: ShadeReport;
  culprit: Schemas['Culprit'];
}

/** A sentence a person can say on the doorstep. */
export function sentenceOf(shade: ShadeReport, culprit: Schemas['Culprit']): string {
  const share = (culprit.alone_kwh / shade.free_kwh) * 100;
  const most = culprit.monthly_kwh.reduce(
    (best, kwh, m) => (kwh > (culprit.monthly_kwh[best] ?? 0) ? m : best),
    0,
  );
  const behind = culprit.only_kwh - culprit.alone_kwh;
  const hidden =
    behind > 0.1 * culprit.only_kwh && behind > 1
      ? ` By itself it would take ${figure(culprit.only_kwh)}: the rest is shaded by others too.`
      : '';
  return `${capital(culprit.name)} takes ${figure(culprit.alone_kwh)} kWh of light from this array in a year, ${figure(share, 1)} % of it, most of all in ${MONTHS[most] ?? ''}.${hidden}`;
}

export function CulpritWords({ shade, culprit }: CulpritWordsProps) {
  const most = Math.max(1e-9, ...culprit.monthly_kwh);
  const { at, option } = useJob();
  const { data: cost } = useQuery({
    ...atMeterQuery(at, culprit.number),
    enabled: option.strings.length > 0,
  });
  const meter = cost ? ` At the meter that is ${figure(cost.kwh)} kWh.` : '';
  const words = sentenceOf(shade, culprit) + meter;
  return (
    <Card
      title={capital(culprit.name)}
      aside="light on the glass"
      scrolls
      className="flex w-[232px] shrink-0 flex-col"
    >
      <p className="text-sm">{words}</p>
      <div
        className="mt-auto flex h-[58px] shrink-0 items-end gap-[3px]"
        role="img"
        aria-label={`${culprit.name} by month: ${culprit.monthly_kwh.map((k, m) => `${MONTHS[m] ?? ''} ${figure(k)}`).join(', ')} kWh`}
      >
        {culprit.monthly_kwh.map((kwh, m) => (
          <span key={MONTHS[m]} className="flex h-full grow flex-col justify-end text-center">
            <span
              className="block rounded-t-sm bg-obstruction"
              style={{ height: `${(kwh / most) * 70}%` }}
            />
            <span className="text-xs leading-4 text-ink-2">{MONTHS[m]?.[0]}</span>
          </span>
        ))}
      </div>
      <span className="mt-1">
        <Button onClick={() => void navigator.clipboard.writeText(words)}>Copy the sentence</Button>
      </span>
    </Card>
  );
}
