import { Check, X } from 'lucide-react';
import { readableOn } from '@/core/colour/colour';
import { colourName, markColours } from '@/core/colour/markColours';
import { classes } from '../../ui/classes';
import { Item, Row } from '../../ui/Row';
import { rememberColour, useOwnColours } from '../styles';

interface ColoursProps {
  label: string;
  value: string | null;
  /** The name of having none, where that is possible. */
  none?: string;
  extra?: string;
  onNone?: () => void;
  onChange: (hex: string) => void;
}

/** The eight of the mark colours, perhaps none, and any other. */
export function Colours({ label, value, none, extra, onNone, onChange }: ColoursProps) {
  const { own: kept } = useOwnColours();
  const offered: string[] = [...(extra ? [extra] : []), ...markColours.map((c) => c.hex), ...kept];
  const own = value !== null && !offered.includes(value);
  return (
    <Row label={label} className="flex items-center gap-1">
      {label !== 'Colour' && <span className="mr-1 text-soft">{label}</span>}
      {none && <Swatch hex={null} name={none} chosen={value === null} onClick={() => onNone?.()} />}
      {offered.map((hex) => (
        <Swatch
          key={hex}
          hex={hex}
          name={hex === '#FFFFFF' ? 'White' : colourName(hex)}
          chosen={hex === value}
          onClick={() => onChange(hex)}
        />
      ))}
      <label
        title="Another colour"
        className={classes(
          'relative grid size-6 place-items-center overflow-hidden rounded-full border border-edge text-[11px]',
          own && 'ring-2 ring-petrol ring-offset-1 ring-offset-card',
        )}
        style={own ? { background: value, color: readableOn(value) } : undefined}
      >
        <span aria-hidden>…</span>
        <Item>
          <input
            type="color"
            aria-label={`${label}: another colour`}
            value={value ?? '#FFFFFF'}
            onChange={(event) => onChange(event.target.value.toUpperCase())}
            // Kept once the picker is left, not at every colour on its way.
            onBlur={(event) => own && rememberColour(event.target.value.toUpperCase())}
            className="absolute inset-0 size-full cursor-pointer opacity-0"
          />
        </Item>
      </label>
    </Row>
  );
}

function Swatch({
  hex,
  name,
  chosen,
  onClick,
}: {
  hex: string | null;
  name: string;
  chosen: boolean;
  onClick: () => void;
}) {
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
