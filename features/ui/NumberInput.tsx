import { useId, useState } from 'react';

interface Props {
  label: string;
  value: number;
  min?: number;
  max?: number;
  onCommit: (value: number) => void;
}

/** A number that takes effect on Enter, on leaving, and by the arrow keys. */
export function NumberInput({ label, value, min, max, onCommit }: Props) {
  const id = useId();
  const [typed, setTyped] = useState<string | null>(null);
  const commit = (text: string) => {
    setTyped(null);
    const number = Number(text.replace(',', '.'));
    if (text.trim() === '' || !Number.isFinite(number)) return;
    const bounded = Math.min(max ?? Infinity, Math.max(min ?? -Infinity, number));
    if (bounded !== value) onCommit(bounded);
  };
  return (
    <label
      htmlFor={id}
      className="flex items-center justify-between gap-1 text-[13px] whitespace-nowrap text-soft"
    >
      {label}
      <input
        id={id}
        inputMode="numeric"
        value={typed ?? String(Math.round(value * 100) / 100)}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={(event) => typed !== null && commit(event.target.value)}
        onKeyDown={(event) => {
          if (event.key === 'Enter' && typed !== null) {
            commit(event.currentTarget.value);
            event.stopPropagation();
          }
          if (event.key === 'Escape' && typed !== null) {
            setTyped(null);
            event.stopPropagation();
          }
          if (event.key === 'ArrowUp' || event.key === 'ArrowDown') {
            event.preventDefault();
            const by = (event.shiftKey ? 10 : 1) * (event.key === 'ArrowUp' ? 1 : -1);
            commit(String((Number(typed) || value) + by));
          }
        }}
        className="h-7 w-[58px] rounded-[6px] border border-edge bg-card px-1.5 font-measure text-[13px] text-ink"
      />
    </label>
  );
}
