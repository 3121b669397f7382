import { limits } from '@/core/values/limits';
import { untouched } from '@/core/document/view';
import type { Size } from '@/core/geometry/size';
import { navigate } from '../thread/navigate';
import { remember } from '../outbox/memory';
import { putInOutbox, untilSafe } from '../outbox/outbox';
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
  const frame = await createImageBitmap(canvas);
  const document = untouched(frame);
  // As a take: seen at once, stored when the server can.
  remember({ id, title, picture: frame, document, provenance });
  await untilSafe(
    id,
    putInOutbox({ id, title, titleMade: true, picture, provenance, document, size: frame }),
  );
  navigate(`/shots/${id}`);
}
