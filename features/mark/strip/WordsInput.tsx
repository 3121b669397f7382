import { useEffect, useRef, useState, type ChangeEvent, type KeyboardEvent } from 'react';
import { flushSync } from 'react-dom';
import { giveKeysBack } from '../../keys/focus';
import { classes } from '../../ui/classes';

type Written = HTMLInputElement | HTMLTextAreaElement;

interface Props {
  label: string;
  value: string;
  most: number;
  className?: string;
  /** It may have several lines: Shift Enter begins one. */
  lines?: boolean;
  onCommit: (value: string) => void;
}

/** A pause in typing after which what is typed is shown. */
const PAUSE = 300;

/** Words: seen while they are typed; Enter and Esc give the keys back, Esc the old words. */
export function WordsInput(props: Props) {
  const { label, value, most, className = 'w-44', lines = false, onCommit } = props;
  const Field = lines ? 'textarea' : 'input';
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
      <Field
        // A field of one line would take the others away.
        rows={lines ? Math.min(3, typed.split('\n').length) : undefined}
        value={typed}
        maxLength={most}
        onFocus={() => (before.current = value)}
        onChange={(event: ChangeEvent<Written>) => setTyped(event.target.value)}
        onBlur={() => commit(typed)}
        onKeyDown={(event: KeyboardEvent<Written>) => {
          if (event.key === 'Enter' && lines && event.shiftKey) return;
          if (event.key === 'Enter') event.preventDefault();
          if (event.key === 'Escape') flushSync(() => setTyped(before.current));
          if (event.key === 'Escape' && before.current !== value) onCommit(before.current);
          if (event.key === 'Enter' || event.key === 'Escape') giveKeysBack(event.currentTarget);
        }}
        className={classes(
          'rounded-[6px] border border-edge bg-card px-2',
          // The strip stays one line, however many its words have.
          lines ? 'resize-none leading-[26px] [[role=toolbar]_&]:max-h-7' : 'h-7',
          className,
        )}
      />
    </label>
  );
}
