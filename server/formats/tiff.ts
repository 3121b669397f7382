import type { Sharp } from 'sharp';
import { withTiffFacts } from '@/core/keep/exif';
import { xmpPacket } from '@/core/keep/xmp';
import { field, type Format, type Wish } from './contract';
import { asTransparent } from './raw';

const MM_PER_INCH = 25.4;

export const tiff: Format = {
  name: 'tiff',
  label: 'TIFF',
  note: 'Every pixel as it is; for print and archives.',
  mediaType: 'image/tiff',
  extension: 'tif',
  transparent: true,
  quality: false,
  facts: true,
  fields: [
    field.choice('compression', 'Compress', [
      ['deflate', 'by Deflate'],
      ['lzw', 'by LZW'],
      ['none', 'not at all'],
    ]),
  ],
  encode: ({ pixels }, wish) => write(asTransparent(pixels), wish),
  write,
};

async function write(image: Sharp, { options, facts }: Wish): Promise<Uint8Array> {
  const compression = options.compression === 'lzw' ? 'lzw' : 'deflate';
  const dots = facts.density / MM_PER_INCH;
  const { data, info } = await image
    .tiff({
      compression: options.compression === 'none' ? 'none' : compression,
      predictor: options.compression === 'none' ? 'none' : 'horizontal',
      xres: dots,
      yres: dots,
      resolutionUnit: 'inch',
    })
    .toBuffer({ resolveWithObject: true });
  return withTiffFacts(data, facts, info, xmpPacket(facts));
}
