import { useEffect } from 'react';
import { readLooks, useLooks } from './lookStore';

interface Props {
  value: string | null;
  /** What having none is called. */
  none: string;
  className?: string;
  onChange: (id: string | null) => void;
}

/** One of the looks, or none. */
export function LookChoice({ value, none, className, onChange }: Props) {
  const looks = useLooks((s) => s.looks);
  useEffect(() => void readLooks().catch(() => undefined), []);
  return (
    <select
      aria-label="Look"
      value={value ?? ''}
      className={className}
      onChange={(event) => onChange(event.target.value || null)}
    >
      <option value="">{none}</option>
      {looks.map(({ id, name }) => (
        <option key={id} value={id}>
          {name}
        </option>
      ))}
    </select>
  );
}
