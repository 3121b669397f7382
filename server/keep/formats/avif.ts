import type { Sharp } from 'sharp';
import { field, type Format, type Wish } from './contract';
import { asTransparent, withFacts } from './raw';

const write = (image: Sharp, { quality, options, facts }: Wish): Promise<Uint8Array> =>
  withFacts(
    image.avif({
      quality,
      chromaSubsampling: options.chroma === 'halved' ? '4:2:0' : '4:4:4',
      effort: Number(options.effort ?? 2),
    }),
    facts,
  ).toBuffer();

export const avif: Format = {
  name: 'avif',
  label: 'AVIF',
  note: 'Smallest; takes a while to make, and not every program opens it.',
  mediaType: 'image/avif',
  extension: 'avif',
  transparent: true,
  quality: true,
  facts: true,
  fields: [
    field.choice('chroma', 'Colour detail', [
      ['full', 'full'],
      ['halved', 'halved'],
    ]),
    field.number('effort', 'Effort', [0, 9, 2]),
  ],
  encode: ({ pixels }, wish) => write(asTransparent(pixels), wish),
  write,
};
