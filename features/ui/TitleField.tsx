import { useEffect, useRef, useState } from 'react';
import { flushSync } from 'react-dom';
import { limits } from '@/core/values/limits';
import { giveKeysBack } from '../keys/focus';

/** A name, edited in place: Enter or leaving takes it, Esc puts the old one back. */
export function TitleField({
  title,
  label = 'Name of the shot',
  fresh = false,
  onChange,
}: {
  title: string;
  label?: string;
  /** It was not named yet: whoever types gives it a name. */
  fresh?: boolean;
  onChange: (title: string) => void;
}) {
  const [typed, setTyped] = useState(title);
  useEffect(() => setTyped(title), [title]);
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => {
    if (fresh) field.current?.select();
  }, [fresh]);
  const commit = () => {
    if (typed.trim() === '') setTyped(title);
    else if (typed.trim() !== title) onChange(typed.trim());
  };
  return (
    <input
      aria-label={label}
      value={typed}
      ref={field}
      maxLength={limits.titleLength}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={commit}
      onKeyDown={(event) => {
        if (event.key === 'Escape') flushSync(() => setTyped(title));
        if (event.key === 'Enter' || event.key === 'Escape') giveKeysBack(event.currentTarget);
      }}
      className="min-w-24 grow truncate rounded-[6px] border border-transparent bg-transparent px-2 py-1 font-name text-base hover:border-edge focus:border-edge focus:bg-card"
      style={{ maxWidth: 420 }}
    />
  );
}
