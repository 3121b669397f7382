import type { Sharp } from 'sharp';
import { withWebpFacts } from '@/core/keep/containers';
import { field, type Format, type Wish } from './contract';
import { asTransparent, insideOf } from './raw';

async function write(image: Sharp, { quality, options, facts }: Wish): Promise<Uint8Array> {
  const { data, info } = await image
    .webp({
      quality,
      lossless: options.lossless === true,
      // Colours under transparent pixels would be changed otherwise.
      exact: options.lossless === true,
      smartSubsample: true,
    })
    .toBuffer({ resolveWithObject: true });
  return withWebpFacts(data, info, insideOf(facts, info));
}

export const webp: Format = {
  name: 'webp',
  label: 'WebP',
  note: 'Smaller than JPEG and PNG; for pages and newer programs. Thin coloured lines lose some colour.',
  mediaType: 'image/webp',
  extension: 'webp',
  transparent: true,
  quality: true,
  facts: true,
  fields: [field.on('lossless', 'Lossless')],
  encode: ({ pixels }, wish) => write(asTransparent(pixels), wish),
  write,
};
