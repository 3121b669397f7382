import { decode } from 'fast-png';
import { fromBase64 } from './base64';
import type { HeldPicture } from '../values/heldPicture';
import type { RgbaPixels } from './pixels';

const decoded = new WeakMap<HeldPicture, RgbaPixels | null>();

/** The pixels of a held picture, decoded once; null when they are not what was said of them. */
export function heldPixels(held: HeldPicture): RgbaPixels | null {
  const known = decoded.get(held);
  if (known !== undefined) return known;
  const pixels = read(held);
  decoded.set(held, pixels);
  return pixels;
}

function read({ png, width, height }: HeldPicture): RgbaPixels | null {
  try {
    const bytes = fromBase64(png);
    const header = new DataView(bytes.buffer, bytes.byteOffset);
    // The size is compared before anything is unpacked.
    if (header.getUint32(16) !== width || header.getUint32(20) !== height) return null;
    const image = decode(bytes);
    if (image.depth !== 8 || image.palette) return null;
    return { data: toRgba(image.data, image.channels, width * height), width, height };
  } catch {
    return null;
  }
}

/** 8-bit grey, grey with alpha, RGB or RGBA as RGBA. */
function toRgba(
  from: ArrayLike<number>,
  channels: number,
  count: number,
): Uint8ClampedArray<ArrayBuffer> {
  const out = new Uint8ClampedArray(count * 4);
  const grey = channels < 3;
  const hasAlpha = channels % 2 === 0;
  for (let i = 0; i < count; i += 1) {
    const at = i * channels;
    out[i * 4] = from[at] ?? 0;
    out[i * 4 + 1] = from[grey ? at : at + 1] ?? 0;
    out[i * 4 + 2] = from[grey ? at : at + 2] ?? 0;
    out[i * 4 + 3] = hasAlpha ? (from[at + channels - 1] ?? 0) : 255;
  }
  return out;
}
