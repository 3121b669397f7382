import type { Size } from '@/core/geometry/size';
import sharp, { type Sharp } from 'sharp';
import type { Facts } from '@/core/keep/facts';
import type { Inside } from '@/core/keep/containers';
import { exifBlock } from '@/core/keep/exif';
import { xmpPacket } from '@/core/keep/xmp';
import type { Pixels } from '../paint/flatten';

export const fromPixels = ({ data, width, height }: Pixels): Sharp =>
  sharp(Buffer.from(data.buffer, data.byteOffset, data.byteLength), {
    raw: { width, height, channels: 4 },
    limitInputPixels: false,
  });

/** The pixels for a format without transparency, over a colour. */
export const onto = (pixels: Pixels, background: string): Sharp =>
  pixels.opaque ? fromPixels(pixels).removeAlpha() : fromPixels(pixels).flatten({ background });

/** The pixels with transparency only where there is some. */
export const asTransparent = (pixels: Pixels): Sharp =>
  pixels.opaque ? fromPixels(pixels).removeAlpha() : fromPixels(pixels);

/** What a file says of itself beside its picture, in the two forms that formats share. */
export const insideOf = (facts: Facts, size: Size): Inside => ({
  exif: exifBlock(facts, size),
  xmp: xmpPacket(facts),
});
