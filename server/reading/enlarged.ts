import sharp from 'sharp';
import { fromPixels } from '../formats/raw';
import type { Pixels } from '../paint/flatten';
import type { Readable } from './reader';

/** Screens have small letters: they are read enlarged; larger than this less so. */
const SCALE = 2;
const MOST_PIXELS = 24_000_000;

/** A picture as it is given to the recogniser: grey, enlarged, as a portable graymap (netpbm, pgm(5)). */
export async function enlarged(pixels: Pixels): Promise<Readable> {
  const { width, height } = pixels;
  const scale = Math.min(SCALE, Math.max(1, Math.sqrt(MOST_PIXELS / (width * height))));
  const size = [Math.round(width * scale), Math.round(height * scale)] as const;
  const grey = await fromPixels(pixels)
    .flatten({ background: '#ffffff' })
    .greyscale()
    .resize(...size, { kernel: sharp.kernel.lanczos3 })
    .toColourspace('b-w')
    .raw()
    .toBuffer();
  const header = Buffer.from(`P5\n${size.join(' ')}\n255\n`);
  return { picture: Buffer.concat([header, grey]), scale };
}
