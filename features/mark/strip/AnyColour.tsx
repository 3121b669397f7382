import { useId, useState } from 'react';
import { readableOn } from '@/core/colour/colour';
import { formatColour } from '@/core/colour/formats';
import { readColour } from '@/core/colour/typed';
import { classes } from '../../ui/classes';
import { Pop } from '../../ui/Pop';
import { Item } from '../../ui/Row';
import { rememberColour } from '../session/styles';

interface Props {
  label: string;
  value: string | null;
  /** The colour is none of those beside it: it is shown here. */
  shown: boolean;
  onChange: (hex: string, opacity?: number) => string | void;
}

/** Any colour, behind a button at the end of those that are offered. */
export function AnyColour({ label, value, shown, onChange }: Props) {
  const [open, setOpen] = useState(false);
  return (
    <Pop
      passesKeys
      label={`${label}: another colour`}
      open={open}
      onOpen={setOpen}
      trigger={
        <Item>
          <button
            type="button"
            aria-label={`${label}: another colour …`}
            title="Another colour"
            className={classes(
              'grid size-6 place-items-center rounded-full border border-edge text-[11px]',
              shown && 'ring-2 ring-petrol ring-offset-1 ring-offset-card',
            )}
            style={shown && value ? { background: value, color: readableOn(value) } : undefined}
          >
            …
          </button>
        </Item>
      }
    >
      <ByValue
        label={label}
        value={value}
        isOwn={shown}
        autoFocus
        onChange={onChange}
        onDone={() => setOpen(false)}
      />
    </Pop>
  );
}

interface ByValueProps {
  label: string;
  value: string | null;
  /** It is none of those that are offered. */
  isOwn: boolean;
  autoFocus?: boolean;
  onChange: Props['onChange'];
  onDone: () => void;
}

/** A colour typed as HEX, RGB or HSL, or chosen by eye. */
export function ByValue({ label, value, isOwn, autoFocus, onChange, onDone }: ByValueProps) {
  return (
    <div className="flex flex-col gap-3">
      <Typed value={value} autoFocus={autoFocus} onChange={onChange} onDone={onDone} />
      <label className="flex items-center justify-between gap-3">
        By eye
        <input
          type="color"
          aria-label={`${label}: by eye`}
          value={value ?? '#FFFFFF'}
          onChange={(event) => onChange(event.target.value.toUpperCase())}
          // Kept once the picker is left, not at every colour on its way.
          onBlur={(event) => isOwn && rememberColour(event.target.value.toUpperCase())}
          className="h-8 w-16 cursor-pointer rounded-[6px] border border-edge bg-card p-0.5"
        />
      </label>
    </div>
  );
}

type TypedProps = Pick<ByValueProps, 'value' | 'autoFocus' | 'onChange' | 'onDone'>;

/** Enter takes what is typed; what is no colour stays, with the reason below. */
function Typed({ value, autoFocus, onChange, onDone }: TypedProps) {
  const problemId = useId();
  const [typed, setTyped] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const take = (): boolean => {
    if (typed === null || typed.trim() === '') return true;
    const read = readColour(typed);
    const wrong =
      'problem' in read
        ? read.problem
        : onChange(read.hex, read.opacity < 1 ? read.opacity : undefined);
    setProblem(wrong ?? null);
    if (wrong) return false;
    if ('hex' in read) rememberColour(read.hex);
    setTyped(null);
    return true;
  };
  return (
    <div>
      <label className="flex items-center justify-between gap-3">
        Typed
        <input
          autoFocus={autoFocus}
          spellCheck={false}
          maxLength={80}
          value={typed ?? value ?? ''}
          placeholder="#B8472A"
          aria-invalid={problem !== null}
          aria-describedby={problemId}
          onFocus={(event) => event.target.select()}
          onChange={(event) => {
            setTyped(event.target.value);
            setProblem(null);
          }}
          onBlur={take}
          onKeyDown={(event) => {
            if (event.key === 'Enter' && take()) onDone();
          }}
          className="h-8 w-52 rounded-[6px] border border-edge bg-card px-2 font-measure text-[13px]"
        />
      </label>
      <p
        id={problemId}
        role={problem ? 'alert' : undefined}
        className={classes('mt-1 max-w-72 text-[13px]', problem ? 'text-brick' : 'text-soft')}
      >
        {problem ?? hintFor(value)}
      </p>
    </div>
  );
}

/** The colour in hand in the other two ways, which is also how they are written. */
function hintFor(value: string | null): string {
  if (!value) return 'HEX, RGB or HSL, with an opacity if wanted: #B8472A80.';
  const { rgb, hsl } = formatColour(value);
  return `${rgb} · ${hsl}`;
}
