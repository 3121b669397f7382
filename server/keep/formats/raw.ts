import sharp, { type Sharp } from 'sharp';
import type { Pixels } from '../../paint/flatten';

/** Dots per inch written into files: what screens are reckoned at. */
export const DENSITY = 96;

export const fromPixels = ({ data, width, height }: Pixels): Sharp =>
  sharp(Buffer.from(data.buffer, data.byteOffset, data.byteLength), {
    raw: { width, height, channels: 4 },
    limitInputPixels: false,
  });
