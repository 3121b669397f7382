import { RadioGroup } from 'radix-ui';
import type { CSSProperties, ReactNode } from 'react';

interface Props<T extends string> {
  label: string;
  value: T;
  className?: string;
  children: ReactNode;
  onChange: (value: T) => void;
}

/** One of several: one Tab stop, the arrow keys choose. */
export function Radios<T extends string>({
  label,
  value,
  className,
  children,
  onChange,
}: Props<T>) {
  return (
    <RadioGroup.Root
      aria-label={label}
      value={value}
      className={className}
      onValueChange={(next) => onChange(next as T)}
    >
      {children}
    </RadioGroup.Root>
  );
}

interface RadioProps {
  value: string;
  label?: string;
  title?: string;
  shortcut?: string;
  disabled?: boolean;
  className?: string;
  style?: CSSProperties;
  children: ReactNode;
}

export function Radio({ value, label, shortcut, children, ...rest }: RadioProps) {
  return (
    <RadioGroup.Item value={value} aria-label={label} aria-keyshortcuts={shortcut} {...rest}>
      {children}
    </RadioGroup.Item>
  );
}
