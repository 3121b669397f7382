import type { Size } from '@/core/geometry/size';
import { fits, type SizeWish } from '@/core/contracts/format';
import { fitSize, printPixels, webSizes } from '@/core/keep/fitSize';
import { NumberInput } from '../ui/NumberInput';

interface Props {
  own: Size;
  size: SizeWish;
  onChange: (size: SizeWish) => void;
}

const ways = [
  ['own', 'As it is'],
  ['pixels', 'Fit into pixels'],
  ['percent', 'Percent'],
  ['longest', 'Longest side'],
  ['web', 'A web size'],
  ['print', 'For print'],
] as const;
type Way = (typeof ways)[number][0];

const fitLabels = { within: 'whole picture', fill: 'fill, cut the rest', pad: 'whole, padded' };
const PRINT = { mm: 150, density: 300 };
const MM_PER_INCH = 25.4;

function wayOf(size: SizeWish): Way {
  if (size.percent !== undefined) return 'percent';
  if (size.longest !== undefined) return 'longest';
  const web = webSizes.some((w) => w.width === size.width && w.height === size.height);
  if (web) return 'web';
  if (size.density !== undefined) return 'print';
  return size.width === undefined && size.height === undefined ? 'own' : 'pixels';
}

/** The size the picture leaves in. */
export function SizePanel({ own, size, onChange }: Props) {
  const way = wayOf(size);
  const choose = (next: Way) => {
    const [first = { width: 1200, height: 630 }] = webSizes.slice(-1);
    const starts: Record<Way, SizeWish> = {
      own: {},
      pixels: { width: own.width, height: own.height, fit: 'within' },
      percent: { percent: 50 },
      longest: { longest: Math.min(1600, Math.max(own.width, own.height)) },
      web: { ...first, fit: 'pad' },
      print: { width: printPixels(PRINT.mm, PRINT.density), density: PRINT.density },
    };
    onChange(starts[next]);
  };
  const both = way === 'pixels' || way === 'web';
  return (
    <section aria-label="Size" className="flex gap-3">
      <h2 className="h-8 content-center font-name text-base">Size</h2>
      <div className="flex min-w-0 flex-wrap items-center gap-2">
        <select
          aria-label="Size"
          value={way}
          onChange={(event) => {
            const next = ways.find(([name]) => name === event.target.value);
            if (next) choose(next[0]);
          }}
          className="h-8 rounded-[6px] border border-edge bg-card px-2"
        >
          {ways.map(([name, label]) => (
            <option key={name} value={name}>
              {label}
            </option>
          ))}
        </select>
        {way === 'percent' && (
          <NumberInput
            label="%"
            value={size.percent ?? 100}
            min={1}
            max={400}
            onCommit={(percent) => onChange({ percent })}
          />
        )}
        {way === 'longest' && (
          <NumberInput
            label="px"
            value={size.longest ?? 0}
            min={1}
            max={32_000}
            onCommit={(longest) => onChange({ longest: Math.round(longest) })}
          />
        )}
        {way === 'web' && (
          <select
            aria-label="Web size"
            value={`${size.width}x${size.height}`}
            onChange={(event) => {
              const web = webSizes.find((w) => `${w.width}x${w.height}` === event.target.value);
              if (web) onChange({ ...size, ...web });
            }}
            className="h-8 rounded-[6px] border border-edge bg-card px-2 font-measure text-[13px]"
          >
            {webSizes.map((w) => (
              <option key={`${w.width}x${w.height}`} value={`${w.width}x${w.height}`}>
                {w.width} × {w.height}
              </option>
            ))}
          </select>
        )}
        {way === 'pixels' &&
          (['width', 'height'] as const).map((side) => (
            <NumberInput
              key={side}
              label={side === 'width' ? 'Width' : 'Height'}
              value={size[side] ?? fitSize(own, size).sheet[side]}
              min={1}
              max={32_000}
              onCommit={(value) => onChange({ ...size, [side]: Math.round(value) })}
            />
          ))}
        {way === 'print' && <OnPaper size={size} onChange={onChange} />}
        {both && (
          <select
            aria-label="How it fits"
            value={size.fit ?? 'within'}
            onChange={(event) => {
              const fit = fits.find((name) => name === event.target.value);
              if (fit) onChange({ ...size, fit });
            }}
            className="h-8 rounded-[6px] border border-edge bg-card px-2"
          >
            {fits.map((fit) => (
              <option key={fit} value={fit}>
                {fitLabels[fit]}
              </option>
            ))}
          </select>
        )}
      </div>
    </section>
  );
}

/** A width on paper, at so many dots per inch, which the file says. */
function OnPaper({ size, onChange }: Pick<Props, 'size' | 'onChange'>) {
  const { width = 0, density = PRINT.density } = size;
  const mm = Math.round((width / density) * MM_PER_INCH);
  return (
    <>
      <NumberInput
        label="mm wide"
        value={mm}
        min={5}
        max={2_000}
        onCommit={(next) => onChange({ width: printPixels(next, density), density })}
      />
      <NumberInput
        label="dots per inch"
        value={density}
        min={36}
        max={2_400}
        onCommit={(next) => {
          const dots = Math.round(next);
          onChange({ width: printPixels(mm, dots), density: dots });
        }}
      />
    </>
  );
}
