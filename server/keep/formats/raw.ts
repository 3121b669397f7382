import sharp, { type Sharp } from 'sharp';
import type { Pixels } from '../../paint/flatten';

/** Dots per inch written into files: what screens are reckoned at. */
export const DENSITY = 96;

export const fromPixels = ({ data, width, height }: Pixels): Sharp =>
  sharp(Buffer.from(data.buffer, data.byteOffset, data.byteLength), {
    raw: { width, height, channels: 4 },
    limitInputPixels: false,
  });

/** Alpha is the highest byte of a pixel read as one word, on the little-endian machines there are. */
const ALPHA = 0xff000000;

export function isOpaque({ data }: Pixels): boolean {
  const words = new Uint32Array(data.buffer, data.byteOffset, data.length / 4);
  let all = ALPHA;
  for (let i = 0; i < words.length; i += 1) all &= words[i] ?? ALPHA;
  return all >>> 24 === 0xff;
}
