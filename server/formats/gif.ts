import type { Facts } from '@/core/keep/facts';
import { commentOf } from '@/core/keep/gifComment';
import { field, type Format } from './contract';
import { asTransparent } from './raw';

/** At most 256 colours; a pixel is transparent or not. */
export const gif: Format = {
  name: 'gif',
  label: 'GIF',
  note: 'At most 256 colours. For old programs.',
  mediaType: 'image/gif',
  extension: 'gif',
  transparent: true,
  quality: false,
  facts: true,
  fields: [
    field.number('colours', 'Colours', [2, 256, 256]),
    field.number('dithering', 'Dithering', [0, 1, 0.5], 0.05),
  ],
  async encode({ pixels }, { options, facts }) {
    const bytes = await asTransparent(pixels)
      .gif({
        colours: Math.round(Number(options.colours ?? 256)),
        dither: Number(options.dithering ?? 0.5),
        effort: 7,
      })
      .toBuffer();
    return withComment(bytes, facts);
  },
};

const TRAILER = 0x3b;

/** The file with the facts in a comment extension before its end (GIF89a, §24). */
function withComment(bytes: Buffer, facts: Facts): Buffer {
  const words = [facts.title, facts.description, facts.origin, facts.takenAt, facts.software];
  const text = words.filter(Boolean).join('\n');
  if (text === '' || bytes.at(-1) !== TRAILER) return bytes;
  return Buffer.concat([bytes.subarray(0, -1), commentOf(text), Buffer.from([TRAILER])]);
}
