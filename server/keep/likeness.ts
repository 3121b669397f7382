import sharp, { type Sharp } from 'sharp';
import type { FormatFacts } from '@/core/contracts/format';
import type { Likeness } from '@/core/contracts/likeness';
import type { Rect } from '@/core/geometry/rect';
import { paintedPixels } from '../paint/picture';
import { compare, type LikenessMap, type Rgba } from './compare';
import { encodeShot, sizedPixels, type EncodeWish } from './encode';
import { formats } from './formats';

/** Side of what is shown as the worst spot. */
const SPOT = 48;

/** The place where the result is least like the original, and how like it is there. */
function worstSpot(
  { data, width, height }: LikenessMap,
  picture: Rgba,
): { at: Rect; likeness: number } {
  let [least, index] = [Infinity, 0];
  for (let i = 0; i < data.length; i += 1) {
    const value = data[i] ?? 1;
    if (value < least) [least, index] = [value, i];
  }
  // The map is a little smaller than the picture: half a window is missing at each side.
  const x = (index % width) + (picture.width - width) / 2;
  const y = Math.floor(index / width) + (picture.height - height) / 2;
  const w = Math.min(SPOT, picture.width);
  const h = Math.min(SPOT, picture.height);
  return {
    at: {
      x: Math.round(Math.min(Math.max(0, x - w / 2), picture.width - w)),
      y: Math.round(Math.min(Math.max(0, y - h / 2), picture.height - h)),
      width: w,
      height: h,
    },
    likeness: least,
  };
}

/** The share of places that may be less like. */
const FEW = 0.05;

function lowOf({ data }: LikenessMap): number {
  const step = Math.max(1, Math.floor(data.length / 40_000));
  const some: number[] = [];
  for (let i = 0; i < data.length; i += step) some.push(data[i] ?? 1);
  some.sort((a, b) => a - b);
  return some[Math.floor(some.length * FEW)] ?? 1;
}

const comparable = (format: FormatFacts['name']): boolean =>
  format !== 'svg' && format !== 'pdf' && format !== 'bmp';

/** Size and likeness of a shot as a file at one quality. @throws Fault 404, 400 */
export async function likenessOf(id: string, wish: EncodeWish): Promise<Likeness> {
  const encoded = await encodeShot(id, wish);
  const { quality, width, height } = encoded;
  const bytes = encoded.bytes.length;
  const exact = { quality, bytes, likeness: 1, low: 1, worst: null };
  if (!comparable(wish.format)) return exact;
  const before = await flat(await sizedPixels(await paintedPixels(id), wish), wish.background);
  const after = await decoded(encoded.bytes, wish.background);
  if (after.width !== width || after.height !== height) return exact;
  if (before.width !== after.width || before.height !== after.height) return exact;
  if (Math.min(width, height) < SPOT / 4) return exact;
  const { likeness, map } = await compare(before, after);
  const worst = likeness < 1 ? worstSpot(map, before) : null;
  return { quality, bytes, likeness, low: lowOf(map), worst };
}

const WHITE = '#FFFFFF';

/** Transparent parts are compared as they look on the background. */
async function flat(pixels: Rgba & { opaque: boolean }, background = WHITE): Promise<Rgba> {
  if (pixels.opaque) return pixels;
  const raw = { width: pixels.width, height: pixels.height, channels: 4 as const };
  const image = sharp(Buffer.from(pixels.data.buffer, pixels.data.byteOffset, pixels.data.length), {
    raw,
  });
  return toRgba(image.flatten({ background }));
}

const decoded = (bytes: Uint8Array, background = WHITE): Promise<Rgba> =>
  toRgba(sharp(bytes, { limitInputPixels: false }).flatten({ background }));

async function toRgba(image: Sharp): Promise<Rgba> {
  const { data, info } = await image.ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  return {
    data: new Uint8ClampedArray(data.buffer, data.byteOffset, data.length),
    width: info.width,
    height: info.height,
  };
}

/** Looks the same: like on the whole, and in nearly every place. */
export const SAME = { likeness: 0.98, low: 0.95 } as const;
const LEAST_QUALITY = 20;

/** The lowest quality that looks the same, by halving. @throws what the signal was stopped for */
export async function sameLooking(
  id: string,
  wish: EncodeWish,
  signal?: AbortSignal,
): Promise<Likeness> {
  let [low, high] = [LEAST_QUALITY, 95];
  let best: Likeness | null = null;
  if (!formats[wish.format].quality) return likenessOf(id, wish);
  while (low <= high) {
    signal?.throwIfAborted();
    const quality = Math.floor((low + high) / 2);
    const tried = await likenessOf(id, { ...wish, quality });
    if (tried.likeness >= SAME.likeness && tried.low >= SAME.low) {
      best = tried;
      high = quality - 1;
    } else low = quality + 1;
  }
  return best ?? likenessOf(id, { ...wish, quality: 100 });
}
