import type { FormatOptions, OptionField } from '@/core/contracts/format';
import { Range } from '../ui/Range';
import { Toggle } from '../ui/Toggle';

interface Props {
  fields: readonly OptionField[];
  options: FormatOptions;
  onChange: (options: FormatOptions) => void;
}

/** A format's own options, drawn from what the format says of itself. */
export function OptionFields({ fields, options, onChange }: Props) {
  const set = (name: string, value: string | number | boolean) =>
    onChange({ ...options, [name]: value });
  return fields.map((field) => {
    const value = options[field.name] ?? field.first;
    if (field.kind === 'switch') {
      return (
        <Toggle
          key={field.name}
          label={field.label}
          checked={value === true}
          onChange={(on) => set(field.name, on)}
        />
      );
    }
    if (field.kind === 'choice') {
      return (
        <label key={field.name} className="flex min-h-8 items-center justify-between gap-3">
          {field.label}
          <select
            value={String(value)}
            onChange={(event) => set(field.name, event.target.value)}
            className="h-8 max-w-[210px] rounded-[6px] border border-edge bg-card px-2"
          >
            {field.choices.map((choice) => (
              <option key={choice.value} value={choice.value}>
                {choice.label}
              </option>
            ))}
          </select>
        </label>
      );
    }
    return (
      <Range
        key={field.name}
        label={field.label}
        value={Number(value)}
        min={field.min}
        max={field.max}
        step={field.step}
        width="w-32"
        onChange={(next) => set(field.name, next)}
      />
    );
  });
}
