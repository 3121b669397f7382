import type { Size } from '@/core/geometry/size';
import { field, type Format } from './contract';
import { fromPixels, onto } from './raw';

const FILE_HEADER = 14;
const INFO_HEADER = 40;
const INCHES_PER_METRE = 39.3701;

/**
 * BITMAPFILEHEADER, BITMAPINFOHEADER and rows from the bottom up, padded to four bytes (Microsoft,
 * bitmap storage). 32 bits carry transparency as programs that know of it read it.
 */
export const bmp: Format = {
  name: 'bmp',
  label: 'BMP',
  note: 'Every pixel, uncompressed. For old programs.',
  mediaType: 'image/bmp',
  extension: 'bmp',
  transparent: false,
  quality: false,
  facts: false,
  thread: () => 'pixels',
  fields: [
    field.choice('depth', 'Bits a pixel', [
      ['24', '24, without transparency'],
      ['32', '32, transparency kept'],
    ]),
  ],
  async encode({ pixels }, { options, background, facts }) {
    const deep = options.depth === '32';
    const image = deep ? fromPixels(pixels) : onto(pixels, background);
    const raw = await image.raw().toBuffer();
    return file(raw, pixels, deep ? 4 : 3, facts.density);
  },
};

function file(raw: Buffer, { width, height }: Size, channels: 3 | 4, density: number): Buffer {
  const row = Math.ceil((width * channels) / 4) * 4;
  const start = FILE_HEADER + INFO_HEADER;
  const out = Buffer.alloc(start + row * height);
  out.write('BM', 0, 'latin1');
  out.writeUInt32LE(out.length, 2);
  out.writeUInt32LE(start, 10);
  out.writeUInt32LE(INFO_HEADER, 14);
  out.writeInt32LE(width, 18);
  out.writeInt32LE(height, 22);
  out.writeUInt16LE(1, 26);
  out.writeUInt16LE(channels * 8, 28);
  out.writeUInt32LE(row * height, 34);
  const dots = Math.round(density * INCHES_PER_METRE);
  out.writeInt32LE(dots, 38);
  out.writeInt32LE(dots, 42);
  for (let y = 0; y < height; y += 1) {
    let to = start + (height - 1 - y) * row;
    let from = y * width * channels;
    for (let x = 0; x < width; x += 1) {
      // Blue first.
      out[to] = raw[from + 2] ?? 0;
      out[to + 1] = raw[from + 1] ?? 0;
      out[to + 2] = raw[from] ?? 0;
      if (channels === 4) out[to + 3] = raw[from + 3] ?? 0;
      to += channels;
      from += channels;
    }
  }
  return out;
}
