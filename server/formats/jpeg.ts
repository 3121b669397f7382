import type { Sharp } from 'sharp';
import { withJpegFacts } from '@/core/keep/containers';
import { field, type Format, type Wish } from './contract';
import { insideOf, onto } from './raw';

/** Full chroma unless asked otherwise: halved, the edges of coloured text and marks smear. */
export const jpeg: Format = {
  name: 'jpeg',
  label: 'JPEG',
  note: 'Small, opens everywhere; a little is lost.',
  mediaType: 'image/jpeg',
  extension: 'jpg',
  transparent: false,
  quality: true,
  facts: true,
  fields: [
    field.choice('chroma', 'Colour detail', [
      ['full', 'full'],
      ['halved', 'halved'],
    ]),
    field.on('progressive', 'Progressive'),
  ],
  encode: ({ pixels }, wish) => write(onto(pixels, wish.background), wish),
  write,
};

async function write(image: Sharp, { quality, options, facts }: Wish): Promise<Uint8Array> {
  const { data, info } = await image
    .jpeg({
      quality,
      chromaSubsampling: options.chroma === 'halved' ? '4:2:0' : '4:4:4',
      progressive: options.progressive === true,
    })
    .toBuffer({ resolveWithObject: true });
  return withJpegFacts(data, facts, insideOf(facts, info));
}
