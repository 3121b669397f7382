import type { Size } from '@/core/geometry/size';
import pLimit, { type LimitFunction } from 'p-limit';
import type { Segment } from 'x11';
import { rowBytes, type PixelLayout } from '@/core/screen/pixels';
import { askMaybe, unavailable, type Screen } from './connection';

const Z_PIXMAP = 2;
const ALL_PLANES = 0xffffffff;

/** RGBA, row-major, width × height × 4; a transparent pixel is on no monitor, or lets see through. */
export interface ScreenPixels {
  data: Uint8ClampedArray<ArrayBuffer>;
  width: number;
  height: number;
}

const GONE = 'The display went away before its picture could be read.';

/** The memory shared with a display, kept for the next picture: what is new has to be found first. */
interface Kept {
  segment: Segment | null;
  bytes: number;
  /** One picture at a time lies in it. */
  inTurn: LimitFunction;
}
const kept = new WeakMap<Screen, Kept>();

/**
 * Reads a pixmap, as the display lays its pixels out: through memory shared with the X server where
 * there is such, else over the connection.
 * @param use makes something of the bytes at once: the next picture is written over them
 * @throws Fault 503
 */
export async function readPixmap<T>(
  screen: Screen,
  pixmap: number,
  layout: PixelLayout,
  size: Size,
  use: (bytes: Uint8Array) => T,
): Promise<T> {
  // A connection that is closed answers nothing any more.
  if (screen.X.stream.destroyed) throw unavailable(GONE);
  const { width, height } = size;
  const bytes = rowBytes(width, layout) * height;
  const memory = kept.get(screen) ?? { segment: null, bytes: 0, inTurn: pLimit(1) };
  kept.set(screen, memory);
  return memory.inTurn(async () => {
    if (await throughMemory(screen, memory, pixmap, { ...size, bytes }))
      return use(memory.segment?.buffer.subarray(0, bytes) ?? new Uint8Array());
    const image = await askMaybe<{ data: Buffer }>((done) =>
      screen.X.GetImage(Z_PIXMAP, pixmap, 0, 0, width, height, ALL_PLANES, done),
    );
    if (!image) throw unavailable(GONE);
    return use(image.data);
  });
}

/** @returns false where no memory is shared, or the X server does not write into it */
async function throughMemory(
  { shm }: Screen,
  memory: Kept,
  pixmap: number,
  { width, height, bytes }: Size & { bytes: number },
): Promise<boolean> {
  if (!shm) return false;
  if (memory.bytes < bytes) {
    memory.segment?.detach();
    memory.segment = await askMaybe<Segment>((done) => void shm.createSegment(bytes, done));
    memory.bytes = memory.segment ? bytes : 0;
  }
  const { segment } = memory;
  if (!segment) return false;
  const read = await askMaybe<true>((done) =>
    segment.getImage(pixmap, 0, 0, width, height, ALL_PLANES, Z_PIXMAP, 0, (error) =>
      done(error, true),
    ),
  );
  return read === true;
}
