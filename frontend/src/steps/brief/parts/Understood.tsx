/** A bill as it was understood: its problem, its doubt, or its days and use. */
import type { Schemas } from '@/api/client';

export function Understood({ reading }: { reading: Schemas['ReadBill'] | undefined }) {
  if (!reading) return null;
  if (reading.problem) {
    return (
      <span role="alert" className="block pt-[3px] text-xs text-stop">
        {reading.problem}
      </span>
    );
  }
  if (reading.energy_kwh === null) {
    return (
      <span className="pt-[3px] text-xs text-ink-2">{reading.days} days, kWh to be typed</span>
    );
  }
  const perDay = reading.energy_kwh / Math.max(1, reading.days);
  const told = `${reading.days} days, ${perDay.toFixed(1)} kWh a day`;
  return (
    <span className={`pt-[3px] text-xs ${reading.warning ? 'text-warn' : 'text-ink-2'}`}>
      {reading.from_cost ? `${Math.round(reading.energy_kwh)} kWh from the money; ` : ''}
      {reading.warning || told}
    </span>
  );
}
