import { limits } from '@/core/values/limits';
import type { Size } from '@/core/geometry/size';
import { navigate } from '../thread/navigate';
import { putInOutbox, untilSafe, whenStored } from '../outbox/outbox';
import { beginEntry } from '../trail/trail';

/** Why there is no sheet of that size, in words; null where there can be one. */
export function sheetProblem({ width, height }: Size): string | null {
  const fits =
    Math.min(width, height) >= 1 &&
    Math.max(width, height) <= limits.side &&
    width * height <= limits.pixels;
  return fits
    ? null
    : 'A sheet has at least 1 pixel a side, at most 32 767, and 134 megapixels in all.';
}

/** Lays out an empty sheet as a shot of its own and opens it in Mark. @param colour null for transparent */
export async function takeSheet({ width, height }: Size, colour: string | null): Promise<void> {
  const canvas = new OffscreenCanvas(width, height);
  const surface = canvas.getContext('2d');
  if (!surface) throw new Error('This browser gives no canvas of that size.');
  if (colour) {
    surface.fillStyle = colour;
    surface.fillRect(0, 0, width, height);
  }
  const picture = await canvas.convertToBlob({ type: 'image/png' });
  const id = crypto.randomUUID();
  const takenAt = new Date().toISOString();
  const title = 'Empty sheet';
  beginEntry(id, title, takenAt);
  const provenance = { source: 'sheet' as const, takenAt };
  await untilSafe(id, putInOutbox({ id, title, titleMade: true, picture, provenance }));
  await whenStored(id);
  navigate(`/shots/${id}`);
}
