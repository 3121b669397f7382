import { Switch } from 'radix-ui';
import { useId, type ReactNode } from 'react';

interface Props {
  label: ReactNode;
  note?: ReactNode;
  checked: boolean;
  disabled?: boolean;
  onChange: (checked: boolean) => void;
}

/** A switch with its words at the left. */
export function Toggle({ label, note, checked, disabled, onChange }: Props) {
  const id = useId();
  return (
    <div className="flex min-h-8 items-center justify-between gap-3">
      <label htmlFor={id} className="min-w-0">
        <span className="block font-bold">{label}</span>
        {note && <span className="block text-[13px] break-words text-soft">{note}</span>}
      </label>
      <Switch.Root
        id={id}
        checked={checked}
        disabled={disabled}
        onCheckedChange={onChange}
        className="relative h-6 w-10 shrink-0 rounded-full border border-edge bg-line transition-colors disabled:opacity-50 data-[state=checked]:border-petrol data-[state=checked]:bg-petrol"
      >
        <Switch.Thumb className="block size-4 translate-x-1 rounded-full bg-card transition-transform data-[state=checked]:translate-x-[19px]" />
      </Switch.Root>
    </div>
  );
}
