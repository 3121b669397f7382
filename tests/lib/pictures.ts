import sharp from 'sharp';
import { randomFrom } from '@/core/random/random';

/** A picture like a screen with a photograph on it: flat, with noise that takes time to pack. */
export async function busyPng(width: number, height: number, seed: number): Promise<Buffer> {
  const next = randomFrom(seed);
  const data = Buffer.alloc(width * height * 3, 235);
  const rows = Math.floor(height / 2);
  for (let i = 0; i < width * rows * 3; i += 1) data[i] = Math.floor(next() * 256);
  return sharp(data, { raw: { width, height, channels: 3 } })
    .png({ compressionLevel: 1 })
    .toBuffer();
}

/** 600 × 400 in four quarters: three colours from the upper left one on, row by row, and white. */
export async function quartersPng(...colours: readonly [string, string, string]): Promise<Buffer> {
  const flat = (width: number, height: number, background: string) =>
    sharp({ create: { width, height, channels: 3, background } });
  const parts = colours.map(async (colour, i) => ({
    input: await flat(300, 200, colour).png().toBuffer(),
    left: (i % 2) * 300,
    top: Math.floor(i / 2) * 200,
  }));
  return flat(600, 400, '#FFFFFF')
    .composite(await Promise.all(parts))
    .png()
    .toBuffer();
}

/** The pixels of a part of a picture: RGBA, row-major. */
export const cutOut = (
  { data, width, height }: { data: Buffer; width: number; height: number },
  place: { left: number; top: number; width: number; height: number },
): Promise<Buffer> =>
  sharp(data, { raw: { width, height, channels: 4 } })
    .extract(place)
    .raw()
    .toBuffer();
