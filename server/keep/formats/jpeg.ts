import type { Format } from './contract';
import { DENSITY, fromPixels } from './raw';

/** Full chroma: halved, the edges of coloured text and marks smear. Transparent parts turn white. */
export const jpeg: Format = {
  name: 'jpeg',
  mediaType: 'image/jpeg',
  extension: 'jpg',
  transparent: false,
  async encode(pixels, { quality }) {
    const bytes = await fromPixels(pixels)
      .flatten({ background: '#FFFFFF' })
      .jpeg({ quality, chromaSubsampling: '4:4:4' })
      .toBuffer();
    return withDensity(bytes);
  },
};

const SEGMENT = [0xff, 0xe0, 0x00, 0x10];
const VERSION = [0x01, 0x01];
const PER_INCH = 0x01;
const NO_THUMBNAIL = [0x00, 0x00];

/**
 * The file with a JFIF segment behind its start (ITU-T T.871, §10.1), which the encoder leaves
 * away: it says the dots per inch.
 */
function withDensity(jpeg: Buffer): Buffer {
  const density = [DENSITY >> 8, DENSITY & 0xff];
  const name = Buffer.from('JFIF\0', 'latin1');
  const jfif = [...SEGMENT, ...name, ...VERSION, PER_INCH, ...density, ...density, ...NO_THUMBNAIL];
  return Buffer.concat([jpeg.subarray(0, 2), Uint8Array.from(jfif), jpeg.subarray(2)]);
}
