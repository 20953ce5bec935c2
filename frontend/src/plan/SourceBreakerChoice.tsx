/** Where the source is joined to the house's wires: it decides how much the panel takes. */
import type { Schemas } from '@/api/client';
import { Choice } from '@/ui/Choice';
import { useJob } from './JobContext';

const PLACES: { value: Schemas['SourceBreaker']; label: string }[] = [
  { value: 'not-said', label: 'not said' },
  { value: 'opposite-end', label: 'at the end opposite the main' },
  { value: 'elsewhere', label: 'beside the main, or elsewhere' },
  { value: 'centre-fed', label: 'at an end of a centre-fed panel' },
  { value: 'feeder', label: 'on the feeder to the panel' },
  { value: 'line-side', label: 'before the main breaker' },
];

export function SourceBreakerChoice() {
  const { job, act } = useJob();
  return (
    <span className="flex flex-col gap-0.5">
      <span aria-hidden="true" className="text-sm">
        Source breaker stands
      </span>
      <Choice
        label="Where the source breaker stands"
        value={job.survey.service.source_breaker ?? 'not-said'}
        items={PLACES}
        onChange={(typed) =>
          void act({ kind: 'set-service-field', field: 'source_breaker', typed })
        }
        className="w-full"
      />
    </span>
  );
}
