import { field, type Format } from './contract';
import { asTransparent, withFacts } from './raw';

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
  encode: ({ pixels }, { quality, options, facts }) =>
    withFacts(
      asTransparent(pixels).webp({
        quality,
        lossless: options.lossless === true,
        // Colours under transparent pixels would be changed otherwise.
        exact: options.lossless === true,
        smartSubsample: true,
      }),
      facts,
    ).toBuffer(),
};
