import type { Rect } from '@/core/geometry/rect';
import { union } from '@/core/geometry/rect';
import { chosenLook, classes } from '../../ui/classes';
import { Radio, Radios } from '../../ui/Radios';
import type { SourceDisplay } from './contract';

interface Props {
  displays: readonly SourceDisplay[];
  /** An id, `all` or `current`. */
  value: string;
  /** The display that `current` means now. */
  current: string | undefined;
  onChoose: (id: string) => void;
}

const MAP = { width: 132, height: 44 };

/** The displays drawn to scale, to choose the one, the one in use, or all of them. */
export function DisplayMap({ displays, value, current, onChoose }: Props) {
  const single = displays.filter((d) => d.id !== 'all');
  if (single.length < 2) return null;
  const whole = union(single.map((d) => d.bounds));
  const scale = Math.min(MAP.width / whole.width, MAP.height / whole.height);
  const place = (r: Rect) => ({
    left: (r.x - whole.x) * scale,
    top: (r.y - whole.y) * scale,
    width: r.width * scale - 2,
    height: r.height * scale - 2,
  });
  return (
    <Radios
      label="Display"
      value={value}
      className="ml-auto flex items-center gap-2"
      onChange={onChoose}
    >
      <div
        className="relative shrink-0"
        style={{ width: whole.width * scale, height: whole.height * scale }}
      >
        {single.map(({ id, label, bounds }) => {
          const on = id === value || value === 'all' || (value === 'current' && id === current);
          return (
            <Radio
              key={id}
              value={id}
              label={label}
              title={label}
              style={place(bounds)}
              className={classes(
                'absolute truncate rounded-[4px] border text-[11px] leading-none',
                on ? 'border-petrol bg-tint font-bold text-petrol' : 'border-edge bg-card',
              )}
            >
              {label.split(' ')[0]}
            </Radio>
          );
        })}
      </div>
      <Word id="current" label="In use" on={value === 'current'} />
      <Word
        id="all"
        label={displays.find((d) => d.id === 'all')?.label ?? 'All displays'}
        on={value === 'all'}
      />
    </Radios>
  );
}

function Word(props: { id: string; label: string; on: boolean }) {
  return (
    <Radio
      value={props.id}
      className={classes(
        'h-7 rounded-full border px-3 text-[13px] whitespace-nowrap',
        chosenLook(props.on),
      )}
    >
      {props.label}
    </Radio>
  );
}
