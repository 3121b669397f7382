import { formatNames, type FormatName } from '@/core/contracts/format';
import type { Way, WaySize } from '@/core/contracts/way';
import { LookChoice } from '../looks/LookChoice';
import { NumberInput } from '../ui/NumberInput';

type Chosen = Pick<Way, 'size' | 'format' | 'look'>;

interface Props extends Chosen {
  onChange: (change: Partial<Chosen>) => void;
}

const ways = [
  ['own', 'As each place says'],
  ['percent', 'Percent'],
  ['longest', 'Longest side'],
] as const;

const starts: Record<(typeof ways)[number][0], WaySize | null> = {
  own: null,
  percent: { percent: 50 },
  longest: { longest: 1600 },
};

const wayOf = (size: WaySize | null): (typeof ways)[number][0] =>
  size === null ? 'own' : 'percent' in size ? 'percent' : 'longest';

const look = 'h-7 rounded-[6px] border border-edge bg-card px-1.5 text-[13px]';

/** The size of what a way copies, keeps and sends, and the format of what it keeps. */
export function Leaves({ size, format, look: given, onChange }: Props) {
  return (
    <div className="mt-2 flex flex-col gap-1 text-[13px] text-soft">
      <label className="flex items-center justify-between gap-2">
        Size
        <select
          value={wayOf(size)}
          onChange={(event) => {
            const way = ways.find(([name]) => name === event.target.value);
            if (way) onChange({ size: starts[way[0]] });
          }}
          className={look}
        >
          {ways.map(([name, label]) => (
            <option key={name} value={name}>
              {label}
            </option>
          ))}
        </select>
      </label>
      {size && 'percent' in size && (
        <NumberInput
          label="Percent of its own size"
          value={size.percent}
          min={1}
          max={400}
          onCommit={(percent) => onChange({ size: { percent } })}
        />
      )}
      {size && 'longest' in size && (
        <NumberInput
          label="Longest side, px"
          value={size.longest}
          min={1}
          max={32_000}
          onCommit={(longest) => onChange({ size: { longest: Math.round(longest) } })}
        />
      )}
      <label className="flex items-center justify-between gap-2">
        Look
        <LookChoice
          value={given}
          none="As it is taken"
          className={look}
          onChange={(chosen) => onChange({ look: chosen })}
        />
      </label>
      <label className="flex items-center justify-between gap-2">
        Format of what is kept
        <select
          value={format ?? ''}
          onChange={(event) =>
            onChange({ format: formatNames.find((f) => f === event.target.value) ?? null })
          }
          className={look}
        >
          <option value="">As each place says</option>
          {formatNames.map((name: FormatName) => (
            <option key={name} value={name}>
              {name.toUpperCase()}
            </option>
          ))}
        </select>
      </label>
    </div>
  );
}
