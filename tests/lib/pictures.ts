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
