/** Which tracker a string hangs on, of all inverters there are. */
import { useJob } from '@/plan/JobContext';
import { Choice } from '@/ui/Choice';

interface TrackerChoiceProps {
  label: string;
  number: number;
  onChange: (number: number) => void;
}

export function TrackerChoice({ label, number, onChange }: TrackerChoiceProps) {
  const { report } = useJob();
  return (
    <Choice
      label={label}
      value={String(number)}
      items={report.trackers.map((t) => ({
        value: String(t.number),
        label: `on tracker ${t.number}${t.inverter && ` of ${t.inverter}`}`,
      }))}
      onChange={(picked) => onChange(Number(picked))}
    />
  );
}
