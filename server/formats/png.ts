import sharp, { type Sharp } from 'sharp';
import { SCREEN_DENSITY } from '@/core/keep/facts';
import { xmpPacket } from '@/core/keep/xmp';
import { withScreenColours, withTexts } from '@/core/keep/pngText';
import type { Pixels } from '../paint/flatten';
import { field, type Format, type Wish } from './contract';
import { asTransparent, fromPixels } from './raw';

/** Lossless; transparency is written only when there is some. */
export const png: Format = {
  name: 'png',
  label: 'PNG',
  note: 'Every pixel as it is. Best for screens and text.',
  mediaType: 'image/png',
  extension: 'png',
  transparent: true,
  quality: false,
  facts: true,
  fields: [
    field.choice('effort', 'Compress', [
      ['usual', 'as usual'],
      ['quick', 'quickly'],
      ['small', 'as small as possible'],
    ]),
    field.on('palette', 'Palette where nothing is lost', false),
  ],
  // The colours are counted one by one.
  thread: ({ palette }) => (palette === true ? 'pixels' : null),
  async encode({ pixels }, wish) {
    const { options, facts } = wish;
    const few = options.palette === true && (await asPalette(pixels, facts.density));
    return few ? withTexts(few, facts, xmpPacket(facts)) : write(asTransparent(pixels), wish);
  },
  // Whether the colours fit a palette is seen by the pixels.
  write: (image, wish) => (wish.options.palette === true ? null : write(image, wish)),
};

async function write(image: Sharp, { options, facts }: Wish): Promise<Uint8Array> {
  const level = { quick: 2, usual: 6, small: 9 }[String(options.effort)] ?? 6;
  const bytes = await image
    .png({ compressionLevel: level, adaptiveFiltering: options.effort === 'small' })
    .withDensity(facts.density)
    .toBuffer();
  return withTexts(bytes, facts, xmpPacket(facts));
}

/** A picture as PNG with nothing beside it: for frames, clipboards and links. */
export async function barePng(image: Sharp): Promise<Buffer> {
  const png = await image.png({ compressionLevel: 6 }).withDensity(SCREEN_DENSITY).toBuffer();
  return Buffer.from(withScreenColours(png).buffer);
}

export const plainPng = (pixels: Pixels): Promise<Buffer> => barePng(asTransparent(pixels));

const MOST_COLOURS = 256;

/** Counts colours only as far as a palette can hold them. */
function fewColours({ data }: Pixels): boolean {
  const words = new Uint32Array(data.buffer, data.byteOffset, data.byteLength / 4);
  const seen = new Set<number>();
  for (const word of words) {
    seen.add(word);
    if (seen.size > MOST_COLOURS) return false;
  }
  return true;
}

/** The picture with a palette, if that gives the very same pixels; else null. */
async function asPalette(pixels: Pixels, density: number): Promise<Uint8Array | null> {
  if (!fewColours(pixels)) return null;
  const bytes = await fromPixels(pixels)
    .png({ palette: true, colours: 256, quality: 100, dither: 0, effort: 7, compressionLevel: 9 })
    .withDensity(density)
    .toBuffer();
  const back = await sharp(bytes).ensureAlpha().raw().toBuffer();
  const same = back.equals(Buffer.from(pixels.data.buffer, pixels.data.byteOffset, back.length));
  return same ? bytes : null;
}
