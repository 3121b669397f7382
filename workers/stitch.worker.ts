import { expose, transfer } from 'comlink';
import type { Rect } from '@/core/geometry/rect';
import type { Size } from '@/core/geometry/size';
import { wordsOf, type RgbaPixels } from '@/core/raster/pixels';
import type { Added } from '@/core/stitch/joiner';
import { LongPage, scrolledPart, type Progress } from '@/core/stitch/longPage';

/** What is scrolled, once that is seen; and whether much of the picture moved. */
export interface Looked {
  part: Rect | null;
  moved: boolean;
}

/** What became of a frame, and how far the whole is. */
export interface Laid {
  added: Added;
  progress: Progress;
}

let page: LongPage | null = null;
/** Pictures in which it is looked for what is scrolled: the first, and the last that differs. */
let looked: RgbaPixels[] = [];

function pixelsOf(frame: ImageBitmap, { x, y, width, height }: Rect): RgbaPixels {
  const canvas = new OffscreenCanvas(width, height);
  const surface = canvas.getContext('2d', { willReadFrequently: true });
  if (!surface) throw new Error('This browser gives no canvas of that size.');
  surface.drawImage(frame, -x, -y);
  frame.close();
  return { data: surface.getImageData(0, 0, width, height).data, width, height };
}

/** So much of a picture is another one when something on it was scrolled. */
const MUCH = 0.02;

/** How much of a picture is another one, 0–1. */
function difference(a: RgbaPixels, b: RgbaPixels): number {
  const [first, second] = [wordsOf(a), wordsOf(b)];
  let count = 0;
  for (let at = 0; at < first.length; at += 1) if (first[at] !== second[at]) count += 1;
  return count / first.length;
}

const bitmapOf = ({ data, width, height }: RgbaPixels): Promise<ImageBitmap> =>
  createImageBitmap(new ImageData(data, width, height), { premultiplyAlpha: 'none' });

const scaledBitmap = ({ data, width, height }: RgbaPixels, by: number): Promise<ImageBitmap> =>
  createImageBitmap(new ImageData(data, width, height), {
    resizeWidth: Math.max(1, Math.round(width * by)),
    resizeHeight: Math.max(1, Math.round(height * by)),
    resizeQuality: 'high',
  });

/** The film is painted from so many times its own pixels. */
const FINER = 2;

const worker = {
  begin(): void {
    page = null;
    looked = [];
  },

  /** The part of the picture that is scrolled, once that is seen. */
  find(frame: ImageBitmap): Looked {
    const now = pixelsOf(frame, { x: 0, y: 0, width: frame.width, height: frame.height });
    const fits = (one: RgbaPixels) => one.width === now.width && one.height === now.height;
    const newestFirst = looked.filter(fits).reverse();
    const [last] = newestFirst;
    const differs = last ? difference(last, now) : 0;
    // Most looks find a screen on which nothing has changed: that costs next to nothing.
    if (last && differs === 0) return { part: null, moved: false };
    for (const one of newestFirst) {
      const found = scrolledPart(one, now);
      if (!found) continue;
      looked = [];
      return { part: found.part, moved: true };
    }
    looked = [newestFirst.at(-1) ?? now, now];
    return { part: null, moved: differs > MUCH };
  },

  /** Lays a frame where it belongs; the first says how large they are. */
  add(frame: ImageBitmap, part: Rect): Laid {
    const pixels = pixelsOf(frame, part);
    page ??= new LongPage(pixels, { waits: true });
    return { added: page.add(pixels), progress: page.progress };
  },

  /**
   * The pieces, small: whole where they fit, else the ends that grow.
   * @param room for all of them, one below the other
   * @param least so wide each is at least
   */
  async film(room: Size, least: number): Promise<ImageBitmap[]> {
    const { axis, pieces = [] } = page?.progress ?? {};
    const sizes = pieces.map(({ size }) => size);
    const width = Math.max(1, ...sizes.map((size) => size.width));
    const height = sizes.reduce((sum, size) => sum + size.height, 1);
    const fits = Math.min(1, room.width / width, room.height / height);
    const scale = axis === 'across' ? fits : Math.max(fits, Math.min(1, least / width));
    const by = Math.max(1, Math.floor(1 / scale / FINER));
    const most = axis === 'across' ? width : Math.floor(room.height / scale / pieces.length);
    const small = page?.reduced(by, most) ?? [];
    const made = await Promise.all(small.map((pixels) => scaledBitmap(pixels, by * scale)));
    return transfer(made, made);
  },

  /** All that is had, one picture for each piece; it goes on. */
  async copy(): Promise<ImageBitmap[]> {
    const made = await Promise.all((page?.joined() ?? []).map(bitmapOf));
    return transfer(made, made);
  },

  /** All that is had, one picture for each piece; after that nothing is. */
  async finish(): Promise<ImageBitmap[]> {
    const made = await Promise.all((page?.joined() ?? []).map(bitmapOf));
    // Where there is no room for it, it can be asked for again.
    page = null;
    return transfer(made, made);
  },
};

export type StitchWorker = typeof worker;

expose(worker);
