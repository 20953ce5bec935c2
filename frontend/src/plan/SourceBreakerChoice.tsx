/** Where the source is joined to the house's wires: it decides how much the panel takes. */
import type { Schemas } from '@/api/client';
import { Choice } from '@/ui/Choice';
import { useJob } from './JobContext';

const PLACES: { value: Schemas['SourceBreaker']; label: string }[] = [
  { value: 'not-said', label: 'Source breaker: not said' },
  { value: 'opposite-end', label: 'Opposite end from the main' },
  { value: 'elsewhere', label: 'Beside the main, or elsewhere' },
  { value: 'centre-fed', label: 'An end of a centre-fed panel' },
  { value: 'feeder', label: 'On the feeder to the panel' },
  { value: 'line-side', label: 'Before the main breaker' },
];

export function SourceBreakerChoice() {
  const { job, act } = useJob();
  return (
    <Choice
      label="Where the source breaker stands"
      value={job.survey.service.source_breaker ?? 'not-said'}
      items={PLACES}
      onChange={(typed) => void act({ kind: 'set-service-field', field: 'source_breaker', typed })}
      className="w-full"
    />
  );
}
