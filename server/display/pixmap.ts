import { ask, unavailable, type Screen } from './connection';

const Z_PIXMAP = 2;
const ALL_PLANES = 0xffffffff;

/** RGBA, row-major, width × height × 4; a transparent pixel is on no monitor, or lets see through. */
export interface ScreenPixels {
  data: Uint8ClampedArray<ArrayBuffer>;
  width: number;
  height: number;
}

/** The bytes of a pixmap, as the display lays them out. @throws Fault 503 */
export async function readPixmap(
  { X }: Screen,
  pixmap: number,
  width: number,
  height: number,
): Promise<Buffer> {
  const { data } = await ask<{ data: Buffer }>((done) =>
    X.GetImage(Z_PIXMAP, pixmap, 0, 0, width, height, ALL_PLANES, done),
  ).catch(() => {
    throw unavailable('The display went away before its picture could be read.');
  });
  return data;
}
