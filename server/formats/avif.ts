import type { Sharp } from 'sharp';
import { exifTexts } from '@/core/keep/exif';
import type { Facts } from '@/core/keep/facts';
import { xmpPacket } from '@/core/keep/xmp';
import { field, type Format, type Wish } from './contract';
import { asTransparent } from './raw';

const write = (image: Sharp, { quality, options, facts }: Wish): Promise<Uint8Array> =>
  withBoxes(
    image.avif({
      quality,
      chromaSubsampling: options.chroma === 'halved' ? '4:2:0' : '4:4:4',
      effort: Number(options.effort ?? 2),
    }),
    facts,
  ).toBuffer();

/** Facts lie in boxes that only the library writes, and it writes texts alone. */
function withBoxes(image: Sharp, facts: Facts): Sharp {
  const { main, exif } = exifTexts(facts);
  const xmp = xmpPacket(facts);
  const told = image.withDensity(facts.density).withExif({ IFD0: main, IFD2: exif });
  return xmp ? told.withDensity(facts.density).withXmp(xmp) : told.withDensity(facts.density);
}

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
