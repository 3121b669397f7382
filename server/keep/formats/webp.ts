import type { Sharp } from 'sharp';
import { field, type Format, type Wish } from './contract';
import { asTransparent, withFacts } from './raw';

const write = (image: Sharp, { quality, options, facts }: Wish): Promise<Uint8Array> =>
  withFacts(
    image.webp({
      quality,
      lossless: options.lossless === true,
      // Colours under transparent pixels would be changed otherwise.
      exact: options.lossless === true,
      smartSubsample: true,
    }),
    facts,
  ).toBuffer();

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
