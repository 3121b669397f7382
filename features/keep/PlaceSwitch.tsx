import { Switch } from 'radix-ui';
import { useId } from 'react';
import { classes } from '../ui/classes';

interface Props {
  label: string;
  /** Where it is: read out, and shown when it is pointed at. */
  note: string;
  /** What stands in the way there. */
  problem?: string | null;
  on: boolean;
  onChange: (on: boolean) => void;
}

/** One place in a grid of them: as small as a word and a switch, so that many are seen at once. */
export function PlaceSwitch({ label, note, problem, on, onChange }: Props) {
  const id = useId();
  return (
    <div
      title={problem ? `${note}\n${problem}` : note}
      className={classes(
        'flex h-7 min-w-0 items-center gap-2 rounded-[6px] border px-2',
        on ? 'border-petrol bg-tint' : 'border-line bg-card',
      )}
    >
      <label
        htmlFor={id}
        className={classes('min-w-0 grow truncate', problem && 'text-brick', on && 'font-bold')}
      >
        {label}
      </label>
      <span id={`${id}-note`} className="sr-only">
        {note}
        {problem && `. ${problem}`}
      </span>
      <Switch.Root
        id={id}
        checked={on}
        aria-describedby={`${id}-note`}
        onCheckedChange={onChange}
        className="relative h-6 w-9 shrink-0 rounded-full border border-edge bg-line data-[state=checked]:border-petrol data-[state=checked]:bg-petrol"
      >
        <Switch.Thumb className="block size-4 translate-x-1 rounded-full bg-card data-[state=checked]:translate-x-[15px]" />
      </Switch.Root>
    </div>
  );
}
