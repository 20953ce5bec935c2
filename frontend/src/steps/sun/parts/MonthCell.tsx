/** A month's figure, typed over where that may be. */
import type { Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { TypedField } from '@/ui/TypedField';
import { figure } from '@/units/format';

interface MonthCellProps {
  label: string;
  value: number | null;
  places: number;
  quantity: Schemas['Monthly'] | undefined;
  month: number;
  typed: boolean;
}

export function MonthCell({ label, value, places, quantity, month, typed }: MonthCellProps) {
  const { edit } = useJob();
  if (value === null) return null;
  const text = figure(value, places);
  if (!quantity) return text;
  return (
    <TypedField
      label={label}
      value={text}
      width={46}
      align="right"
      tone={typed ? 'plain' : 'derived'}
      commit={(next) => edit({ kind: 'set-monthly', quantity, month, typed: next })}
    />
  );
}
