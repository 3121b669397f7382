import { Check, X } from 'lucide-react';
import { readableOn } from '@/core/colour/colour';
import { colourName, markColours } from '@/core/colour/markColours';
import { pointerShapeLabels, pointerShapes, type PointerShape } from '@/core/marks/piece/shapes';
import { kindOf, type MarkName } from '@/core/marks/registry';
import type { Style } from '@/core/marks/style';
import { Button } from '../ui/Button';
import { classes } from '../ui/classes';
import { NumberInput } from '../ui/NumberInput';
import { Range } from '../ui/Range';
import { endCrop, setCropping, setShape, setStyle } from './actions';
import { shownMarks, useSession } from './session';
import { useStyles } from './styles';
import { factsOf } from './tools';

/** Above the picture: the settings of the tool in hand, or of the selected mark. */
export function Strip() {
  const tool = useSession((s) => s.tool);
  const chosen = useSession((s) => s.selection);
  const history = useSession((s) => s.history);
  const live = useSession((s) => s.live);
  const styles = useStyles();
  const first = shownMarks({ history, live }).find((mark) => mark.id === chosen[0]);
  const name: MarkName | null = first?.kind ?? (tool === 'grab' || tool === 'crop' ? null : tool);
  const style = name && { ...styles[name], ...(first && kindOf(first).styleOf(first)) };
  const label = first ? kindOf(first).label : factsOf(tool).label;
  return (
    <div
      role="toolbar"
      aria-label={`Settings of ${label}`}
      className="flex min-h-[46px] shrink-0 flex-wrap items-center gap-x-4 gap-y-1 border-b border-line bg-card px-3.5 py-1.5"
    >
      <span className="font-name">{label}</span>
      {tool === 'crop' && <CropSettings />}
      {name &&
        style &&
        kindOf(name).settings.map((field) => <Setting key={field} field={field} style={style} />)}
      {!name && tool === 'grab' && (
        <span className="text-soft">
          Click a mark to select it, drag to move it, Shift-click for several.
        </span>
      )}
    </div>
  );
}

function Setting({ field, style }: { field: keyof Style; style: Style }) {
  switch (field) {
    case 'colour':
      return (
        <Colours label="Colour" value={style.colour} onChange={(colour) => setStyle({ colour })} />
      );
    case 'fill':
      return (
        <Colours
          label="Fill"
          value={style.fill}
          none="No fill"
          onNone={() => setStyle({ fill: null })}
          onChange={(fill) => setStyle({ fill })}
        />
      );
    case 'plate':
      return (
        <Colours
          label="Plate"
          value={style.plate}
          none="No plate"
          extra="#FFFFFF"
          onNone={() => setStyle({ plate: null })}
          onChange={(plate) => setStyle({ plate })}
        />
      );
    case 'thickness':
      return (
        <Range
          label="Thickness"
          value={style.thickness}
          min={1}
          max={60}
          onChange={(thickness) => setStyle({ thickness })}
        />
      );
    case 'outline':
      return (
        <Range
          label="Line"
          value={style.outline}
          min={0}
          max={60}
          onChange={(outline) => setStyle({ outline })}
        />
      );
    case 'corner':
      return (
        <Range
          label="Corners"
          value={style.corner}
          min={0}
          max={60}
          width="w-14"
          onChange={(corner) => setStyle({ corner })}
        />
      );
    case 'fillOpacity':
      if (!style.fill) return null;
      return (
        <Range
          label="Fill strength"
          value={Math.round(style.fillOpacity * 100)}
          min={5}
          max={100}
          unit=" %"
          width="w-14"
          onChange={(percent) => setStyle({ fillOpacity: percent / 100 })}
        />
      );
    case 'pointer':
      return (
        <label className="flex items-center gap-2">
          Pointer
          <select
            value={style.pointer}
            onChange={(event) => setStyle({ pointer: event.target.value as PointerShape })}
            className="h-8 rounded-[6px] border border-edge bg-card px-2"
          >
            {pointerShapes.map((shape) => (
              <option key={shape} value={shape}>
                {pointerShapeLabels[shape]}
              </option>
            ))}
          </select>
        </label>
      );
    case 'textSize':
      return (
        <NumberInput
          label="Size"
          value={style.textSize}
          min={6}
          max={400}
          onCommit={(textSize) => setStyle({ textSize })}
        />
      );
    case 'bold':
      return <Press label="Bold" on={style.bold} onChange={(bold) => setStyle({ bold })} />;
    case 'dashed':
      return <Press label="Dashed" on={style.dashed} onChange={(dashed) => setStyle({ dashed })} />;
    case 'heads':
      return <Heads value={style.heads} />;
  }
}

const headNames: [Style['heads'], string][] = [
  ['none', 'No head'],
  ['start', 'Head at start'],
  ['end', 'Head at end'],
  ['both', 'Both heads'],
];

function Heads({ value }: { value: Style['heads'] }) {
  return (
    <select
      aria-label="Heads"
      value={value}
      onChange={(event) => {
        const chosen = headNames.find(([name]) => name === event.target.value);
        if (chosen) setStyle({ heads: chosen[0] });
      }}
      className="h-7 rounded-[6px] border border-edge bg-card px-2"
    >
      {headNames.map(([name, label]) => (
        <option key={name} value={name}>
          {label}
        </option>
      ))}
    </select>
  );
}

function Press({
  label,
  on,
  onChange,
}: {
  label: string;
  on: boolean;
  onChange: (on: boolean) => void;
}) {
  return (
    <button
      type="button"
      aria-pressed={on}
      onClick={() => onChange(!on)}
      className={classes(
        'h-7 rounded-full border px-3',
        on ? 'border-petrol bg-tint text-petrol' : 'border-edge bg-card hover:bg-tint',
      )}
    >
      {label}
    </button>
  );
}

interface ColoursProps {
  label: string;
  value: string | null;
  /** The name of having none, where that is possible. */
  none?: string;
  extra?: string;
  onNone?: () => void;
  onChange: (hex: string) => void;
}

function Colours({ label, value, none, extra, onNone, onChange }: ColoursProps) {
  const offered: string[] = [...(extra ? [extra] : []), ...markColours.map((c) => c.hex)];
  const own = value !== null && !offered.includes(value);
  return (
    <div role="group" aria-label={label} className="flex items-center gap-1">
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
        <input
          type="color"
          aria-label={`${label}: another colour`}
          value={value ?? '#FFFFFF'}
          onChange={(event) => onChange(event.target.value.toUpperCase())}
          className="absolute inset-0 size-full cursor-pointer opacity-0"
        />
      </label>
    </div>
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
  );
}

const shapeLabels = { none: 'Rectangle', oval: 'Oval', polygon: 'Free shape' } as const;

/** What the view shows within the crop; a free shape stays as long as it is not replaced. */
function ShapeChoice() {
  const shape = useSession((s) => s.history.document.view.shape);
  const current = shape?.kind ?? 'none';
  return (
    <label className="flex items-center gap-2">
      Shape
      <select
        value={current}
        onChange={(event) => {
          if (event.target.value === 'none') setShape(undefined);
          if (event.target.value === 'oval') setShape({ kind: 'oval' });
        }}
        className="h-8 rounded-[6px] border border-edge bg-card px-2"
      >
        {(['none', 'oval', 'polygon'] as const)
          .filter((kind) => kind !== 'polygon' || current === 'polygon')
          .map((kind) => (
            <option key={kind} value={kind}>
              {shapeLabels[kind]}
            </option>
          ))}
      </select>
    </label>
  );
}

function CropSettings() {
  const crop = useSession((s) => s.cropping);
  const frame = useSession((s) => s.picture);
  if (!crop) return null;
  return (
    <>
      {(['x', 'y', 'width', 'height'] as const).map((field) => (
        <NumberInput
          key={field}
          label={{ x: 'Left', y: 'Top', width: 'Width', height: 'Height' }[field]}
          value={crop[field]}
          onCommit={(value) => setCropping({ ...crop, [field]: value })}
        />
      ))}
      <ShapeChoice />
      <Button onClick={() => setCropping({ x: 0, y: 0, width: frame.width, height: frame.height })}>
        Whole frame
      </Button>
      <Button hint="Esc" onClick={() => endCrop(false)}>
        Leave it
      </Button>
      <Button
        hint="Enter"
        icon={<Check size={16} strokeWidth={1.75} />}
        onClick={() => endCrop(true)}
      >
        Crop to this
      </Button>
    </>
  );
}
