import type { FormatFacts } from '@/core/contracts/format';
import type { Likeness } from '@/core/contracts/likeness';
import { SPOT } from '@/core/likeness/likenessMap';
import { paintedPixels } from '../pictures/painted';
import type { Paintable } from '../shots/rows';
import { asItLeaves } from './asItLeaves';
import { compare } from './compare';
import { encodeShot, sizedPixels, type EncodeWish } from './encode';
import { formats } from '../formats';

const comparable = (format: FormatFacts['name']): boolean =>
  format !== 'svg' && format !== 'pdf' && format !== 'bmp';

/** Size and likeness of a shot as a file at one quality. @throws Fault 400 */
export async function likenessOf(shot: Paintable, wish: EncodeWish): Promise<Likeness> {
  const encoded = await encodeShot(shot, wish);
  const { quality, width, height } = encoded;
  const bytes = encoded.bytes.length;
  const exact = { quality, bytes, likeness: 1, low: 1, worst: null };
  if (!comparable(wish.format)) return exact;
  const painted = await paintedPixels(await asItLeaves(shot, wish));
  const before = await sizedPixels(painted, wish, wish.background);
  if (before.width !== width || before.height !== height) return exact;
  if (Math.min(width, height) < SPOT / 4) return exact;
  const { background = WHITE } = wish;
  return { quality, bytes, ...(await compare(before, encoded.bytes, background)) };
}

const WHITE = '#FFFFFF';

/** Looks the same: like on the whole, and nearly wherever there is something to see. */
export const SAME = { likeness: 0.98, low: 0.96 } as const;
const LEAST_QUALITY = 20;

/** The lowest quality that looks the same, by halving. @throws what the signal was stopped for */
export async function sameLooking(
  shot: Paintable,
  wish: EncodeWish,
  signal?: AbortSignal,
): Promise<Likeness> {
  let [low, high] = [LEAST_QUALITY, 95];
  let best: Likeness | null = null;
  if (!formats[wish.format].quality) return likenessOf(shot, wish);
  while (low <= high) {
    signal?.throwIfAborted();
    const quality = Math.floor((low + high) / 2);
    const tried = await likenessOf(shot, { ...wish, quality });
    if (tried.likeness >= SAME.likeness && tried.low >= SAME.low) {
      best = tried;
      high = quality - 1;
    } else low = quality + 1;
  }
  return best ?? likenessOf(shot, { ...wish, quality: 100 });
}
