import { chosenLook, classes } from '../../ui/classes';

/** A setting that is on or off. */
export function Press({
  label,
  on,
  onChange,
}: {
  label: string;
  on: boolean;
  onChange: (on: boolean) => void;
}) {
  return (
    <button
      type="button"
      aria-pressed={on}
      onClick={() => onChange(!on)}
      className={classes('h-7 rounded-full border px-3', chosenLook(on))}
    >
      {label}
    </button>
  );
}

/** A setting of a few names. */
export function Choice<T extends string>({
  label,
  value,
  options,
  bare = false,
  onChange,
}: {
  label: string;
  /** Its label is only read out. */
  bare?: boolean;
  value: T;
  options: readonly (readonly [T, string])[];
  onChange: (value: T) => void;
}) {
  return (
    <label className="flex items-center gap-2">
      <span className={bare ? 'sr-only' : undefined}>{label}</span>
      <select
        value={value}
        onChange={(event) => {
          const chosen = options.find(([name]) => name === event.target.value);
          if (chosen) onChange(chosen[0]);
        }}
        className="h-7 rounded-[6px] border border-edge bg-card px-2"
      >
        {options.map(([name, words]) => (
          <option key={name} value={name}>
            {words}
          </option>
        ))}
      </select>
    </label>
  );
}
