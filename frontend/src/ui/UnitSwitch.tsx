/** Metres or feet, for bare numbers and figures on drawings. */
import type { LengthUnit } from '@/units/length';
import { Button } from './Button';

interface UnitSwitchProps {
  unit: LengthUnit;
  onUnit: (unit: LengthUnit) => void;
}

export function UnitSwitch({ unit, onUnit }: UnitSwitchProps) {
  return (
    <fieldset className="flex" aria-label="Unit of lengths">
      {(['m', 'ft'] as const).map((choice) => (
        <Button
          key={choice}
          weight={choice === unit ? 'pressed' : 'plain'}
          aria-pressed={choice === unit}
          className={choice === 'm' ? 'rounded-r-none' : 'rounded-l-none border-l-0'}
          onClick={() => choice !== unit && onUnit(choice)}
        >
          {choice}
        </Button>
      ))}
    </fieldset>
  );
}
