import { classes } from './classes';
import { Radio, Radios } from './Radios';

interface Props<T extends string> {
  label: string;
  value: T;
  /** What each shows, what it is called where that says too little, and why it cannot be chosen. */
  options: readonly { value: T; label: string; called?: string; not?: string }[];
  /** They are words, not numbers. */
  words?: boolean;
  onChange: (value: T) => void;
}

/** One of a few short things, side by side. */
export function ChipRadios<T extends string>(props: Props<T>) {
  const { label, value, options, words = false, onChange } = props;
  return (
    <Radios
      label={label}
      value={value}
      className={classes('flex flex-wrap', words ? 'gap-1.5' : 'gap-1')}
      onChange={onChange}
    >
      {options.map((option) => (
        <Radio
          key={option.value}
          value={option.value}
          label={option.called}
          disabled={option.not !== undefined}
          title={option.not}
          className={classes(
            'grid h-7 min-w-7 place-items-center rounded-full border px-2.5',
            !words && '!px-2 font-measure text-[13px]',
            value === option.value
              ? 'border-petrol bg-tint font-bold text-petrol'
              : 'border-edge bg-card enabled:hover:bg-tint disabled:text-faint',
          )}
        >
          {option.label}
        </Radio>
      ))}
    </Radios>
  );
}
