import type { Size } from '../geometry/size';
import type { SizeWish } from '../contracts/format';
import { limits } from '../values/limits';
import type { Rect } from '../geometry/rect';

/** How a picture is brought to its size: cut out of the source, scaled, laid on a sheet. */
export interface Fitted {
  /** The part of the source that is used. */
  source: Rect;
  /** What that part is scaled to. */
  scaled: Size;
  /** The whole result. */
  sheet: Size;
  /** Where the scaled part lies on it. */
  at: { x: number; y: number };
}

const whole = (v: number): number => Math.max(1, Math.round(v));

/** The scaled size when only a factor is known: no side becomes nothing. */
const scaledBy = ({ width, height }: Size, by: number): Size => ({
  width: whole(width * by),
  height: whole(height * by),
});

const plain = (source: Size, scaled: Size): Fitted => ({
  source: { x: 0, y: 0, width: source.width, height: source.height },
  scaled,
  sheet: scaled,
  at: { x: 0, y: 0 },
});

/** What a wish for a size means for a picture of some size. */
export function fitSize(source: Size, wish: SizeWish): Fitted {
  const { width, height, longest, percent, fit = 'within' } = wish;
  if (width !== undefined && height !== undefined) return fitBoth(source, { width, height }, fit);
  if (width !== undefined)
    return plain(source, { width, height: whole((source.height * width) / source.width) });
  if (height !== undefined)
    return plain(source, { width: whole((source.width * height) / source.height), height });
  if (percent !== undefined) return plain(source, scaledBy(source, percent / 100));
  if (longest !== undefined) {
    return plain(
      source,
      scaledBy(source, Math.min(1, longest / Math.max(source.width, source.height))),
    );
  }
  return plain(source, { width: source.width, height: source.height });
}

function fitBoth(source: Size, box: Size, fit: NonNullable<SizeWish['fit']>): Fitted {
  const [across, down] = [box.width / source.width, box.height / source.height];
  if (fit === 'fill') {
    const by = Math.max(across, down);
    const cut = {
      width: Math.min(source.width, box.width / by),
      height: Math.min(source.height, box.height / by),
    };
    const width = whole(cut.width);
    const height = whole(cut.height);
    return {
      source: {
        x: Math.floor((source.width - width) / 2),
        y: Math.floor((source.height - height) / 2),
        width,
        height,
      },
      scaled: box,
      sheet: box,
      at: { x: 0, y: 0 },
    };
  }
  const scaled = scaledBy(source, Math.min(across, down));
  const inside = {
    width: Math.min(scaled.width, box.width),
    height: Math.min(scaled.height, box.height),
  };
  if (fit === 'within') return plain(source, inside);
  return {
    ...plain(source, inside),
    sheet: box,
    at: {
      x: Math.floor((box.width - inside.width) / 2),
      y: Math.floor((box.height - inside.height) / 2),
    },
  };
}

/** Why a size is not made, in words; null when it is within the bounds that hold for pictures. */
export function sizeProblem({ scaled, sheet }: Pick<Fitted, 'scaled' | 'sheet'>): string | null {
  const fits = ({ width, height }: Size) =>
    Math.max(width, height) <= limits.side && width * height <= limits.pixels;
  if (fits(scaled) && fits(sheet)) return null;
  return `That would be ${sheet.width} × ${sheet.height} pixels; Rezzik makes up to 134 megapixels and 32 767 a side.`;
}

/** True when nothing is scaled, cut or padded. */
export const isAsItIs = (source: Size, { scaled, sheet }: Fitted): boolean =>
  scaled.width === source.width &&
  scaled.height === source.height &&
  sheet.width === source.width &&
  sheet.height === source.height;

/** Sizes that pages and link previews ask for (display-advertising and link-preview sizes; memory). */
export const webSizes: readonly Size[] = [
  { width: 728, height: 90 },
  { width: 300, height: 250 },
  { width: 160, height: 600 },
  { width: 468, height: 60 },
  { width: 336, height: 280 },
  { width: 320, height: 50 },
  { width: 970, height: 250 },
  { width: 1200, height: 630 },
];

const MM_PER_INCH = 25.4;

/** Pixels for a printed width. @param mm of paper @param density dots per inch */
export const printPixels = (mm: number, density: number): number =>
  whole((mm / MM_PER_INCH) * density);
