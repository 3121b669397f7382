import sharp, { type Sharp } from 'sharp';
import type { Facts } from '@/core/keep/facts';
import { xmpPacket } from '@/core/keep/xmp';
import type { Pixels } from '../../paint/flatten';

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

/** EXIF has times as 2026:11:23 14:02:11, with the offset apart (CIPA DC-008). */
const exifTime = (at: string): string => at.slice(0, 19).replace(/-/g, ':').replace('T', ' ');

/** EXIF and XMP with the facts, and the density; what is empty is left out. */
export function withFacts(image: Sharp, facts: Facts): Sharp {
  const { title, description, takenAt, software, density } = facts;
  const words = description || title;
  return image
    .withDensity(density)
    .withExif({
      IFD0: {
        Software: software,
        ...(words && { ImageDescription: words }),
        ...(takenAt && { DateTime: exifTime(takenAt) }),
      },
    })
    .withDensity(density)
    .withXmp(xmpPacket(facts));
}
