import sharp, { type Sharp } from 'sharp';
import type { FormatFacts } from '@/core/contracts/format';
import type { Likeness } from '@/core/contracts/likeness';
import { lowLikeness, SPOT, worstSpot } from '@/core/keep/likenessMap';
import { paintedPixels } from '../paint/picture';
import { compare, type Rgba } from './compare';
import { encodeShot, sizedPixels, type EncodeWish } from './encode';
import { formats } from './formats';

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
  return { quality, bytes, likeness, low: lowLikeness(map, before), worst };
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

/** Looks the same: like on the whole, and nearly wherever there is something to see. */
export const SAME = { likeness: 0.98, low: 0.96 } as const;
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
