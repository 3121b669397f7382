import { EyeOff, ScanEye, X } from 'lucide-react';
import type { OnlyChanged } from '@/core/contracts/series';
import type { Rect } from '@/core/geometry/rect';
import { Button } from '../ui/Button';
import { IconButton } from '../ui/IconButton';
import { NumberInput } from '../ui/NumberInput';

/** Which kind of area is being drawn. */
export type Drawing = 'watch' | 'ignore';

interface Props {
  watched: OnlyChanged;
  drawing: Drawing | null;
  onDraw: (drawing: Drawing | null) => void;
  onChange: (watched: OnlyChanged) => void;
}

/** Where a series looks for what has changed: drawn on its picture, or by numbers. */
export function Areas({ watched, drawing, onDraw, onChange }: Props) {
  const { watch, ignore } = watched;
  return (
    <section aria-label="Watched" className="mt-3 rounded-[9px] border border-line bg-card p-3">
      <h2 className="mb-1 font-name text-base">Taken only when it has changed</h2>
      <p className="text-[13px] text-soft">
        {watch ? 'Watched is one area' : 'All of the picture is watched'}
        {ignore.length > 0 &&
          (ignore.length === 1 ? ', one is ignored' : `, ${ignore.length} are ignored`)}
        .
      </p>
      <div className="my-2 flex flex-wrap gap-2">
        <Button
          aria-pressed={drawing === 'watch'}
          icon={<ScanEye size={18} strokeWidth={1.75} />}
          onClick={() => onDraw(drawing === 'watch' ? null : 'watch')}
        >
          Watch an area
        </Button>
        <Button
          aria-pressed={drawing === 'ignore'}
          icon={<EyeOff size={18} strokeWidth={1.75} />}
          onClick={() => onDraw(drawing === 'ignore' ? null : 'ignore')}
        >
          Ignore an area
        </Button>
      </div>
      {drawing && (
        <p role="status" className="text-[13px]">
          Drag over it on the picture, or{' '}
          <button
            type="button"
            className="text-petrol underline"
            onClick={() => {
              onChange(withArea(watched, drawing, { x: 0, y: 0, width: 200, height: 100 }));
              onDraw(null);
            }}
          >
            give it by numbers
          </button>
          . Esc leaves it.
        </p>
      )}
      {watch && (
        <Area
          label="Watched"
          at={watch}
          onChange={(at) => onChange({ ...watched, watch: at })}
          onRemove={() => onChange({ ...watched, watch: null })}
        />
      )}
      {ignore.map((at, i) => (
        <Area
          key={i}
          label={`Ignored ${i + 1}`}
          at={at}
          onChange={(to) => onChange({ ...watched, ignore: ignore.with(i, to) })}
          onRemove={() => onChange({ ...watched, ignore: ignore.filter((_, n) => n !== i) })}
        />
      ))}
    </section>
  );
}

/** The same with one more area. */
export const withArea = (watched: OnlyChanged, drawing: Drawing, at: Rect): OnlyChanged =>
  drawing === 'watch'
    ? { ...watched, watch: at }
    : { ...watched, ignore: [...watched.ignore, at].slice(-20) };

interface AreaProps {
  label: string;
  at: Rect;
  onChange: (at: Rect) => void;
  onRemove: () => void;
}

const sides = ['x', 'y', 'width', 'height'] as const;
const names = { x: 'Left', y: 'Top', width: 'Width', height: 'Height' };

function Area({ label, at, onChange, onRemove }: AreaProps) {
  return (
    <fieldset className="mt-2 border-t border-line pt-1">
      <legend className="sr-only">{label}</legend>
      <div className="flex items-center justify-between">
        <span aria-hidden className="font-bold">
          {label}
        </span>
        <IconButton label={`No longer: ${label}`} onClick={onRemove}>
          <X size={16} strokeWidth={1.75} />
        </IconButton>
      </div>
      <div className="grid grid-cols-2 gap-x-4">
        {sides.map((side) => (
          <NumberInput
            key={side}
            label={names[side]}
            value={at[side]}
            min={side === 'width' || side === 'height' ? 1 : 0}
            max={100_000}
            onCommit={(value) => onChange({ ...at, [side]: Math.round(value) })}
          />
        ))}
      </div>
    </fieldset>
  );
}
