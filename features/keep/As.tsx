import { formatNames, type FormatName } from '@/core/contracts/folder';
import { classes } from '../ui/classes';
import { formatBytes } from '../ui/format';
import { Range } from '../ui/Range';

interface Props {
  format: FormatName;
  quality: number;
  bytes: number | null;
  onChange: (change: { format?: FormatName; quality?: number }) => void;
}

const labels: Record<FormatName, string> = { png: 'PNG', jpeg: 'JPEG' };
const notes: Record<FormatName, string> = {
  png: 'Every pixel as it is. Best for screens and text.',
  jpeg: 'Smaller; a little is lost. Transparent parts turn white.',
};

/** The file format, with its size in bytes before anything is kept. */
export function As({ format, quality, bytes, onChange }: Props) {
  return (
    <section aria-label="As">
      <h2 className="mb-2 font-name text-base">As</h2>
      <div role="radiogroup" aria-label="Format" className="mb-2 flex gap-1.5">
        {formatNames.map((name) => (
          <button
            key={name}
            type="button"
            role="radio"
            aria-checked={name === format}
            onClick={() => onChange({ format: name })}
            className={classes(
              'h-7 rounded-full border px-3',
              name === format
                ? 'border-petrol bg-tint font-bold text-petrol'
                : 'border-edge bg-card hover:bg-tint',
            )}
          >
            {labels[name]}
          </button>
        ))}
        <span className="ml-auto font-measure text-[13px]">
          {bytes !== null && formatBytes(bytes)}
        </span>
      </div>
      <p className="mb-2 text-[13px] text-soft">{notes[format]}</p>
      {format === 'jpeg' && (
        <Range
          label="Quality"
          value={quality}
          min={1}
          max={100}
          width="w-44"
          onChange={(value) => onChange({ quality: value })}
        />
      )}
    </section>
  );
}
