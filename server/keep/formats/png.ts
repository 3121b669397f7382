import type { Format } from './contract';
import { DENSITY, fromPixels } from './raw';

/** Lossless; transparency is written only when there is some. */
export const png: Format = {
  name: 'png',
  mediaType: 'image/png',
  extension: 'png',
  transparent: true,
  async encode(pixels) {
    const image = fromPixels(pixels);
    return (pixels.opaque ? image.removeAlpha() : image)
      .png({ compressionLevel: 6 })
      .withDensity(DENSITY)
      .toBuffer();
  },
};
