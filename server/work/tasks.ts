import { createCanvas } from '@napi-rs/canvas';
import sharp from 'sharp';
import { compare, type Comparison } from '@/core/compare/compare';
import type { Likeness } from '@/core/contracts/likeness';
import { paintDesk } from '@/core/desk/build';
import type { Desk } from '@/core/desk/model';
import { lowLikeness, worstSpot } from '@/core/likeness/likenessMap';
import { similarity } from '@/core/likeness/similarity';
import type { ShotDocument } from '@/core/document/document';
import type { Rect } from '@/core/geometry/rect';
import type { GuideFormat } from '@/core/contracts/guide';
import type { FormatName } from '@/core/contracts/format';
import { decodeBmp, type DecodedBmp } from '@/core/raster/bmp/decode';
import { withExponent } from '@/core/raster/gamma';
import type { PaintedPart } from '@/core/paint/parts';
import type { Ink } from '@/core/raster/ink';
import { planarOf, rgbaOf } from '@/core/raster/planar';
import type { ReadablePixels, RgbaPixels } from '@/core/raster/pixels';
import { findParts } from '@/core/screen/parts';
import { changedShare, type Watched } from '@/core/series/changed';
import type { Added } from '@/core/stitch/joiner';
import { LongPage, type Progress } from '@/core/stitch/longPage';
import { smallestText, type TextRun } from '@/core/screen/textHeights';
import { fromPixels } from '../formats/raw';
import type { Source, Wish } from '../formats/contract';
import type { GuideBytes, Material } from '../guideFormats/contract';
import { flattenClipPart, inkOn, type ClipPixels, type ReadableClip } from '../paint/clipPixels';
import { decoded, flatten, flattenPixels, type Pixels } from '../paint/flatten';
import { serverShaper } from '../paint/shaper';

/** What comes of a task, and what of it is handed over rather than copied. */
interface Done<T> {
  value: T;
  handOver?: ArrayBuffer[];
}

/** What is told of a comparison. */
export type Likenesses = Pick<Likeness, 'likeness' | 'low' | 'worst'>;

/** Pictures joined, and of how many of them; or the one that does not join those before it. */
export type Stitched =
  { png: Uint8Array<ArrayBuffer>; frames: number } | { odd: number; why: 'apart' | 'full' };

/** What became of a picture of what is scrolled, and how far the whole is. */
export interface Laid {
  added: Added;
  progress: Progress;
}
/** What is scrolled, in the thread that is its own. */
let scrolling: LongPage | null = null;

/** Memory that all threads see: painted pixels go from one task to the next without being copied. */
function shared(data: Uint8ClampedArray): Uint8ClampedArray {
  const all = new Uint8ClampedArray(new SharedArrayBuffer(data.length));
  all.set(data);
  return all;
}

async function flat(pixels: Pixels, background: string): Promise<ReadablePixels> {
  return pixels.opaque ? pixels : decoded(fromPixels(pixels).flatten({ background }));
}

/** Everything heavy that the server does with pixels, each run in a thread of the pool. */
export const tasks = {
  /** Paints a shot as it leaves. */
  flatten: async (input: Parameters<typeof flatten>[0]): Promise<Done<Pixels>> => {
    const pixels = await flatten(input, await serverShaper());
    return { value: { ...pixels, data: shared(pixels.data) } };
  },
  /**
   * Paints a picture of a clip as it leaves, as it was given: RGBA or in planes.
   * @param background what shows where nothing is; null where that stays so
   */
  clipPicture: async (input: {
    frame: ClipPixels;
    document: ShotDocument;
    background: string | null;
  }): Promise<Done<ReadableClip>> => {
    const { frame, document, background } = input;
    const rgba = 'planes' in frame ? rgbaOf(frame) : frame;
    const pixels = flattenPixels(rgba, document, await serverShaper());
    const made = background === null ? pixels : await flat(pixels, background);
    const value = 'planes' in frame ? planarOf(made, frame.planes) : made;
    const { buffer } = value.data;
    return { value, handOver: buffer instanceof ArrayBuffer ? [buffer] : [] };
  },
  /** The same of a part alone. @param given what of the picture is read for it */
  clipPart: async (input: {
    given: ClipPixels;
    part: PaintedPart;
  }): Promise<Done<ReadableClip>> => {
    const value = flattenClipPart(input.given, input.part, await serverShaper());
    return { value, handOver: [value.data.buffer] };
  },
  /** What lies on a part of all pictures of a clip, where that is the same whatever they show. */
  clipInk: async (input: { part: PaintedPart; step: 1 | 2 }): Promise<Done<Ink | null>> => ({
    value: inkOn(input.part, input.step, await serverShaper()),
  }),
  /** Writes a file in a format whose writer computes by itself. */
  encode: async (input: {
    format: FormatName;
    source: Source;
    wish: Wish;
  }): Promise<Done<Uint8Array>> => {
    // Most threads never write a file.
    const { formats } = await import('../formats');
    const bytes = new Uint8Array(await formats[input.format].encode(input.source, input.wish));
    return { value: bytes, handOver: [bytes.buffer] };
  },
  /** Writes the files of a guide. */
  guide: async (input: {
    format: GuideFormat;
    material: Material;
  }): Promise<Done<GuideBytes[]>> => {
    const { guideWriters } = await import('../guideFormats');
    return { value: await guideWriters[input.format].write(input.material) };
  },
  /** Decodes a BMP file. */
  decodeBmp: ({ bytes }: { bytes: Uint8Array }): Promise<Done<DecodedBmp>> => {
    const value = decodeBmp(bytes);
    return Promise.resolve({ value, handOver: [value.data.buffer] });
  },
  /** Puts an exponent on the colours of samples. */
  withExponent: ({
    samples,
    channels,
    exponent,
  }: {
    samples: Uint8Array | Uint16Array;
    channels: 1 | 2 | 3 | 4;
    exponent: number;
  }): Promise<Done<Uint8Array>> => {
    const value = withExponent(samples, channels, exponent);
    return Promise.resolve({ value, handOver: [value.buffer] });
  },
  /**
   * How like a picture the file is that was made of it: on the whole, where it matters, and where
   * least. Transparent parts are compared as they look on the background.
   */
  compare: async (input: {
    before: Pixels;
    file: Uint8Array;
    background: string;
  }): Promise<Done<Likenesses>> => {
    const { background, file } = input;
    const before = await flat(input.before, background);
    const after = await decoded(sharp(file, { limitInputPixels: false }).flatten({ background }));
    const { likeness, map } = similarity(before, after);
    const worst = likeness < 1 ? worstSpot(map, before) : null;
    return { value: { likeness, low: lowLikeness(map, before), worst } };
  },
  /** What two pictures differ by, laid on each other. */
  differences: ({
    first,
    second,
  }: {
    first: ReadablePixels;
    second: ReadablePixels;
  }): Promise<Done<Comparison>> => Promise.resolve({ value: compare(first, second) }),
  /** How much of a picture, a file, is another one than before. */
  changed: async (input: {
    before: Uint8Array;
    after: Uint8Array;
    watched: Watched;
  }): Promise<Done<number>> => {
    const [before, after] = await Promise.all(
      [input.before, input.after].map((file) => decoded(sharp(file, { limitInputPixels: false }))),
    );
    return { value: before && after ? changedShare(before, after, input.watched) : 1 };
  },
  /** A part of the practice desk as it looks at a time. */
  desk: async ({ desk, part }: { desk: Desk; part: Rect }): Promise<Done<Pixels>> => {
    const { width, height } = part;
    const surface = createCanvas(width, height).getContext('2d');
    paintDesk(surface, desk, await serverShaper(), part);
    const { data } = surface.getImageData(0, 0, width, height);
    return { value: { data: shared(data), width, height, opaque: false } };
  },
  /** Buttons, fields, menus and the like: those found within a time, ms. */
  parts: ({
    picture,
    within,
  }: {
    picture: ReadablePixels;
    within: number;
  }): Promise<Done<Rect[]>> => {
    const end = performance.now() + within;
    const isLate = () => performance.now() > end;
    return Promise.resolve({ value: findParts(picture, isLate) });
  },
  /**
   * Joins pictures of something that was scrolled, of one size; the first that does not join those
   * before it ends it.
   */
  stitch: async ({ frames }: { frames: readonly Uint8Array[] }): Promise<Done<Stitched>> => {
    let page: LongPage | null = null;
    for (const [at, frame] of frames.entries()) {
      const pixels = await decoded(sharp(frame, { limitInputPixels: false }));
      page ??= new LongPage(pixels, { waits: false });
      const added = page.add(pixels);
      if (added === 'apart' || added === 'full') return { value: { odd: at, why: added } };
    }
    const [joined] = page?.joined() ?? [];
    if (!page || !joined) throw new Error('There is nothing to join.');
    const image = fromPixels({ ...joined, opaque: false });
    const png = new Uint8Array(await image.png({ compressionLevel: 3 }).toBuffer());
    const count = page.progress.pieces[0]?.frames ?? 1;
    return { value: { png, frames: count }, handOver: [png.buffer] };
  },
  /** The next picture of what is scrolled, for a thread of its own; `scrolledPieces` ends it. */
  scrolled: (frame: RgbaPixels): Promise<Done<Laid>> => {
    scrolling ??= new LongPage(frame, { waits: true });
    const added = scrolling.add(frame);
    return Promise.resolve({ value: { added, progress: scrolling.progress } });
  },
  /** Every piece of it, as a file. */
  scrolledPieces: async (): Promise<Done<Uint8Array<ArrayBuffer>[]>> => {
    const pieces = scrolling?.joined() ?? [];
    scrolling = null;
    const value: Uint8Array<ArrayBuffer>[] = [];
    for (const piece of pieces) {
      const image = fromPixels({ ...piece, opaque: false });
      value.push(new Uint8Array(await image.png({ compressionLevel: 3 }).toBuffer()));
    }
    return { value, handOver: value.map(({ buffer }) => buffer) };
  },
  /** The smallest words of a picture. */
  smallestWords: (picture: ReadablePixels): Promise<Done<TextRun | null>> =>
    Promise.resolve({ value: smallestText(picture) }),
};

export type Tasks = typeof tasks;
export type TaskName = keyof Tasks;
export type TaskInput<N extends TaskName> = Parameters<Tasks[N]>[0];
export type TaskValue<N extends TaskName> = Awaited<ReturnType<Tasks[N]>>['value'];
