import { randomUUID } from 'node:crypto';
import sharp from 'sharp';
import type { Provenance } from '@/core/contracts/provenance';
import type { Rect } from '@/core/geometry/rect';
import { copy as place } from '@/core/places/copy';
import { allowedScreen } from '../display/access';
import { holdArriving } from './arriving';
import { offer } from '../display/clipboard';
import type { ScreenPixels } from '../display/pixmap';

/** True when no pixel of a part is transparent. */
function isOpaque({ data, width }: ScreenPixels, part: Rect): boolean {
  const words = new Uint32Array(data.buffer, data.byteOffset, data.length / 4);
  for (let y = part.y; y < part.y + part.height; y += 1) {
    const from = y * width + part.x;
    for (let i = from; i < from + part.width; i += 1) {
      if ((words[i] as number) >>> 24 !== 255) return false;
    }
  }
  return true;
}

/** A part of a screen as PNG, quick rather than small: a person waits to paste it. */
function partPng(pixels: ScreenPixels, part: Rect): Promise<Buffer> {
  const { data, width, height } = pixels;
  const { x: left, y: top } = part;
  const cut = sharp(data, { raw: { width, height, channels: 4 } }).extract({
    ...{ left, top, width: part.width, height: part.height },
  });
  const plain = isOpaque(pixels, part) ? cut.removeAlpha() : cut;
  return plain.png({ compressionLevel: 2 }).toBuffer();
}

interface QuickCopy {
  /** The id it is to be stored under. */
  id: string;
  /** A file holds it. */
  held: boolean;
  /** As the place would have told it, and in words. */
  copied: Promise<null>;
  said: string;
}

/**
 * Puts a part of a screen on the clipboard before anything else is done with it; until it is stored
 * a file holds it, whatever happens.
 */
export async function copyAtOnce(
  pixels: ScreenPixels,
  part: Rect,
  provenance: Provenance,
): Promise<QuickCopy> {
  const id = randomUUID();
  let held = false;
  try {
    const png = await partPng(pixels, part);
    await holdArriving(id, png, provenance);
    held = true;
    await offer(await allowedScreen(), png);
    return { id, held, copied: Promise.resolve(null), said: place.said(null) };
  } catch (error) {
    const copied = Promise.reject<null>(error instanceof Error ? error : new Error(String(error)));
    // It is told when its turn comes.
    copied.catch(() => undefined);
    const words = error instanceof Error ? error.message : String(error);
    return { id, held, copied, said: `${place.failing} ${words}` };
  }
}
