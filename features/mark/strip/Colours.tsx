import { Check, X } from 'lucide-react';
import { useState } from 'react';
import { readableOn } from '@/core/colour/colour';
import { colourName, markColours } from '@/core/colour/markColours';
import { classes } from '../../ui/classes';
import { Pop } from '../../ui/Pop';
import { Item, Row } from '../../ui/Row';
import { useOwnColours } from '../session/styles';
import { AnyColour, ByValue } from './AnyColour';

interface Props {
  label: string;
  value: string | null;
  /** Takes a colour; says what is wrong where it cannot. */
  onChange: (hex: string, opacity?: number) => string | void;
}

/** The colours that are offered besides `extra`: the eight, and the person's own. */
function useOffered(extra: readonly string[] = []): string[] {
  const { own } = useOwnColours();
  return [...extra, ...markColours.map((c) => c.hex), ...own];
}

/** The colour of the mark, on the strip itself. */
export function Colours({ label, value, onChange }: Props) {
  const offered = useOffered();
  const isOwn = value !== null && !offered.includes(value);
  return (
    <Row label={label} className="flex items-center gap-1">
      {offered.map((hex) => (
        <Swatch key={hex} hex={hex} chosen={hex === value} onClick={() => onChange(hex)} />
      ))}
      <AnyColour label={label} value={value} shown={isOwn} onChange={onChange} />
    </Row>
  );
}

interface SecondProps extends Props {
  /** The name of having none; absent where there must be one. */
  none?: string;
  onNone?: () => void;
}

const WHITE = '#FFFFFF';

/** A second colour, of a filling or an edge: one button on the strip, the choice beside it. */
export function SecondColour({ label, value, none, onNone, onChange }: SecondProps) {
  const [open, setOpen] = useState(false);
  const offered = useOffered([WHITE]);
  return (
    <Pop
      passesKeys
      label={label}
      open={open}
      onOpen={setOpen}
      trigger={
        <button
          type="button"
          className="flex h-7 items-center gap-2 rounded-full border border-edge bg-card pr-1 pl-3 hover:bg-tint"
        >
          {label}
          <span className="sr-only">: {value === null ? none : nameOf(value)}</span>
          <span
            aria-hidden
            className="grid size-5 place-items-center rounded-full border border-edge"
            style={value ? { background: value } : undefined}
          >
            {value === null && <X size={12} strokeWidth={1.75} />}
          </span>
        </button>
      }
    >
      <Row label={label} className="mb-3 flex items-center gap-1">
        {onNone && <Swatch hex={null} name={none} chosen={value === null} onClick={onNone} />}
        {offered.map((hex) => (
          <Swatch key={hex} hex={hex} chosen={hex === value} onClick={() => onChange(hex)} />
        ))}
      </Row>
      <ByValue
        label={label}
        value={value}
        isOwn={value !== null && !offered.includes(value)}
        onChange={onChange}
        onDone={() => setOpen(false)}
      />
    </Pop>
  );
}

const nameOf = (hex: string): string => (hex === WHITE ? 'White' : colourName(hex));

interface SwatchProps {
  hex: string | null;
  name?: string;
  chosen: boolean;
  onClick: () => void;
}

function Swatch({ hex, name = nameOf(hex ?? WHITE), chosen, onClick }: SwatchProps) {
  return (
    <Item>
      <button
        type="button"
        aria-label={name}
        title={name}
        aria-pressed={chosen}
        onClick={onClick}
        className={classes(
          'grid size-6 place-items-center rounded-full border border-edge',
          chosen && 'ring-2 ring-petrol ring-offset-1 ring-offset-card',
        )}
        style={hex ? { background: hex, color: readableOn(hex) } : undefined}
      >
        {hex === null ? (
          <X size={14} strokeWidth={1.75} aria-hidden />
        ) : (
          chosen && <Check size={14} strokeWidth={2.5} aria-hidden />
        )}
      </button>
    </Item>
  );
}
