import { useId, useRef, useState } from 'react';
import { numbersOf } from '@/core/numbers/written';
import { giveKeysBack } from '../keys/focus';
import { announce } from './announce';

interface Props {
  label: string;
  value: number;
  min?: number;
  max?: number;
  /** Nothing stands there for 0, and nothing typed means it. */
  empty?: boolean;
  /** Takes the focus as it appears, its number selected. */
  autoFocus?: boolean;
  onCommit: (value: number) => void;
}

/**
 * A number that takes effect on Enter, on leaving, and by the arrow keys; Esc puts the old one
 * back. Enter and Esc give the keys back to the view.
 */
export function NumberInput({ label, value, min, max, empty = false, autoFocus, onCommit }: Props) {
  const id = useId();
  const [typed, show] = useState<string | null>(null);
  /** What is typed now: leaving the field comes before the next drawing, and commits it only once. */
  const now = useRef<string | null>(null);
  const setTyped = (text: string | null) => {
    now.current = text;
    show(text);
  };
  const commit = (text: string) => {
    setTyped(null);
    const number = text.trim() === '' && empty ? 0 : numbersOf().read(text);
    if (number === null) {
      if (text.trim() !== '') announce(`${text.trim()} is no number. ${label} stays as it was.`);
      return;
    }
    commitNumber(number);
  };
  const commitNumber = (number: number) => {
    setTyped(null);
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
        autoFocus={autoFocus}
        onFocus={(event) => autoFocus && event.target.select()}
        inputMode="decimal"
        value={typed ?? (empty && value === 0 ? '' : numbersOf().write(value))}
        placeholder={empty ? 'any' : undefined}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={() => now.current !== null && commit(now.current)}
        onKeyDown={(event) => {
          if (event.key === 'Enter') {
            if (now.current !== null) {
              commit(now.current);
              event.preventDefault();
            }
            giveKeysBack(event.currentTarget);
          }
          if (event.key === 'Escape') {
            setTyped(null);
            giveKeysBack(event.currentTarget);
          }
          if (event.key === 'ArrowUp' || event.key === 'ArrowDown') {
            event.preventDefault();
            const by = (event.shiftKey ? 10 : 1) * (event.key === 'ArrowUp' ? 1 : -1);
            commitNumber((numbersOf().read(typed ?? '') ?? value) + by);
          }
        }}
        className="h-7 w-[58px] rounded-[6px] border border-edge bg-card px-1.5 font-measure text-[13px] text-ink"
      />
    </label>
  );
}
