import type { Sharp } from 'sharp';
import type { Facts } from '@/core/keep/facts';
import { field, type Format, type Wish } from './contract';
import { onto, withFacts } from './raw';

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
  const coded = image.jpeg({
    quality,
    chromaSubsampling: options.chroma === 'halved' ? '4:2:0' : '4:4:4',
    progressive: options.progressive === true,
  });
  return withJfif(await withFacts(coded, facts).toBuffer(), facts);
}

const SEGMENT = [0xff, 0xe0, 0x00, 0x10];
const VERSION = [0x01, 0x01];
const PER_INCH = 0x01;
const NO_THUMBNAIL = [0x00, 0x00];

/**
 * The file with a JFIF segment behind its start (ITU-T T.871, §10.1), which the encoder leaves
 * away: it says the dots per inch.
 */
function withJfif(jpegBytes: Buffer, { density }: Facts): Buffer {
  const hasOne = jpegBytes[2] === 0xff && jpegBytes[3] === 0xe0;
  if (hasOne) return jpegBytes;
  const dots = [density >> 8, density & 0xff];
  const name = Buffer.from('JFIF\0', 'latin1');
  const jfif = [...SEGMENT, ...name, ...VERSION, PER_INCH, ...dots, ...dots, ...NO_THUMBNAIL];
  return Buffer.concat([jpegBytes.subarray(0, 2), Uint8Array.from(jfif), jpegBytes.subarray(2)]);
}
