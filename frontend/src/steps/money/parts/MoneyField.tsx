/** A figure of Money by its name, typed over; usual ones are dashed until somebody does. */
import type { Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { TypedField } from '@/ui/TypedField';

interface MoneyFieldProps {
  found: Schemas['MoneyView'];
  field: Schemas['MoneyField'];
  placeholder?: string;
}

export function MoneyField({ found, field, placeholder = 'none' }: MoneyFieldProps) {
  const { edit } = useJob();
  const here = found.fields.find((f) => f.field === field);
  if (!here) return null;
  return (
    <TypedField
      label={here.name}
      value={here.text}
      tone={here.usual ? 'derived' : 'plain'}
      placeholder={placeholder}
      showLabel
      width={92}
      align="right"
      commit={(typed) => edit({ kind: 'set-money-field', field, typed })}
    />
  );
}
