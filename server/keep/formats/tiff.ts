import { field, type Format } from './contract';
import { asTransparent, withFacts } from './raw';

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
  encode: ({ pixels }, { options, facts }) => {
    const compression = options.compression === 'lzw' ? 'lzw' : 'deflate';
    const dots = facts.density / MM_PER_INCH;
    return withFacts(
      asTransparent(pixels).tiff({
        compression: options.compression === 'none' ? 'none' : compression,
        predictor: options.compression === 'none' ? 'none' : 'horizontal',
        xres: dots,
        yres: dots,
        resolutionUnit: 'inch',
      }),
      facts,
    ).toBuffer();
  },
};
