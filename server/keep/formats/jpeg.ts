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

/**
 * Writes the dots per inch into the JFIF header (ITU-T T.871, §10.1). The encoder would put them
 * into an EXIF block instead, which some readers pass over.
 */
function withDensity(jpeg: Buffer): Buffer {
  if (jpeg.toString('latin1', 6, 10) !== 'JFIF') return jpeg;
  const DOTS_PER_INCH = 1;
  jpeg.writeUInt8(DOTS_PER_INCH, 13);
  jpeg.writeUInt16BE(DENSITY, 14);
  jpeg.writeUInt16BE(DENSITY, 16);
  return jpeg;
}
