import type { Format } from './contract';
import { DENSITY, fromPixels } from './raw';

/** Full chroma: halved, the edges of coloured text and marks smear. Transparent parts turn white. */
export const jpeg: Format = {
  name: 'jpeg',
  mediaType: 'image/jpeg',
  extension: 'jpg',
  transparent: false,
  encode: (pixels, { quality }) =>
    fromPixels(pixels)
      .flatten({ background: '#FFFFFF' })
      .jpeg({ quality, chromaSubsampling: '4:4:4' })
      .withDensity(DENSITY)
      .toBuffer(),
};
