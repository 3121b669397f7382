import { classes } from './classes';
import { Radio, Radios } from './Radios';

interface Props<T extends string> {
  label: string;
  value: T;
  /** What each shows, and what it is called where that says too little. */
  options: readonly { value: T; label: string; called?: string }[];
  onChange: (value: T) => void;
}

/** One of a few short things, side by side. */
export function ChipRadios<T extends string>({ label, value, options, onChange }: Props<T>) {
  return (
    <Radios label={label} value={value} className="flex flex-wrap gap-1.5" onChange={onChange}>
      {options.map((option) => (
        <Radio
          key={option.value}
          value={option.value}
          label={option.called}
          className={classes(
            'grid h-7 min-w-7 place-items-center rounded-full border px-2 font-measure text-[13px]',
            value === option.value
              ? 'border-petrol bg-tint font-bold text-petrol'
              : 'border-edge bg-card hover:bg-tint',
          )}
        >
          {option.label}
        </Radio>
      ))}
    </Radios>
  );
}
