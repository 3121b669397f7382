import { Slider } from 'radix-ui';
import { numbersOf } from '@/core/numbers/written';

interface Props {
  label: string;
  value: number;
  min: number;
  max: number;
  step?: number;
  unit?: string;
  width?: string;
  onChange: (value: number) => void;
}

/** A slider with its name and value; the arrow keys move it by one step. */
export function Range({
  label,
  value,
  min,
  max,
  step = 1,
  unit = '',
  width = 'w-[72px]',
  onChange,
}: Props) {
  return (
    <div className="flex items-center gap-2">
      <span aria-hidden className="text-soft">
        {label}
      </span>
      <Slider.Root
        className={`relative flex h-6 ${width} touch-none items-center`}
        value={[value]}
        min={min}
        max={max}
        step={step}
        onValueChange={([next]) => next !== undefined && onChange(next)}
      >
        <Slider.Track className="relative h-1 grow rounded-full bg-edge">
          <Slider.Range data-filled className="absolute h-full rounded-full bg-petrol" />
        </Slider.Track>
        <Slider.Thumb
          aria-label={label}
          aria-valuetext={`${numbersOf().write(value)}${unit}`}
          className="block size-5 rounded-full border-2 border-petrol bg-card"
        />
      </Slider.Root>
      <span className="min-w-6 font-measure text-[13px]">
        {numbersOf().write(value)}
        {unit}
      </span>
    </div>
  );
}
