/** A slider with its words; arrows step it, Page keys step further. */
import { Slider as Radix } from 'radix-ui';

interface SliderProps {
  label: string;
  value: number;
  min: number;
  max: number;
  step: number;
  /** The value in words, for who hears it. */
  told: string;
  onChange: (value: number) => void;
}

export function Slider({ label, value, min, max, step, told, onChange }: SliderProps) {
  return (
    <Radix.Root
      value={[value]}
      min={min}
      max={max}
      step={step}
      onValueChange={([next]) => next !== undefined && onChange(next)}
      className="relative flex h-6 grow touch-none items-center select-none"
    >
      <Radix.Track className="relative h-[6px] grow rounded-full bg-bar">
        <Radix.Range className="absolute h-full rounded-full bg-straw" />
      </Radix.Track>
      <Radix.Thumb
        aria-label={label}
        aria-valuetext={told}
        className="block h-6 w-4 rounded-sm border border-ink bg-sheet"
      />
    </Radix.Root>
  );
}
