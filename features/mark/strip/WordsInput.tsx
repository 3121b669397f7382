import { useEffect, useRef, useState } from 'react';
import { flushSync } from 'react-dom';
import { giveKeysBack } from '../../keys/focus';

interface Props {
  label: string;
  value: string;
  most: number;
  className?: string;
  onCommit: (value: string) => void;
}

/** A pause in typing after which what is typed is shown. */
const PAUSE = 300;

/** One line of words: seen while it is typed; Enter and Esc give the keys back, Esc the old words. */
export function WordsInput({ label, value, most, className = 'w-44', onCommit }: Props) {
  const [typed, setTyped] = useState(value);
  const before = useRef(value);
  const commit = (text: string) => text !== value && onCommit(text);
  useEffect(() => setTyped(value), [value]);
  useEffect(() => {
    if (typed === value) return;
    const timer = setTimeout(() => onCommit(typed), PAUSE);
    return () => clearTimeout(timer);
    // What is typed alone decides; a value that comes from elsewhere is shown, not sent back.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [typed]);
  return (
    <label className="flex items-center gap-2">
      {label}
      <input
        value={typed}
        maxLength={most}
        onFocus={() => (before.current = value)}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={() => commit(typed)}
        onKeyDown={(event) => {
          if (event.key === 'Escape') flushSync(() => setTyped(before.current));
          if (event.key === 'Escape' && before.current !== value) onCommit(before.current);
          if (event.key === 'Enter' || event.key === 'Escape') giveKeysBack(event.currentTarget);
        }}
        className={`h-7 rounded-[6px] border border-edge bg-card px-2 ${className}`}
      />
    </label>
  );
}
