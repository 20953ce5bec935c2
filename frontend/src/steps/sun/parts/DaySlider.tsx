/** The day of the year by slider. */
import { Slider } from '@/ui/Slider';
import { dayName } from '@/units/format';
import type { When } from '../moments';

interface DaySliderProps {
  when: When;
  onWhen: (when: When) => void;
}

export const LAST_DAY = 364;

export function DaySlider({ when, onWhen }: DaySliderProps) {
  return (
    <Slider
      label="Day of the year"
      value={when.day}
      min={0}
      max={LAST_DAY}
      step={1}
      told={dayName(when.day)}
      onChange={(day) => onWhen({ ...when, day })}
    />
  );
}
