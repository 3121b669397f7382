import sharp from 'sharp';
import type { ReadablePixels } from '@/core/raster/pixels';
import type { Rect } from '@/core/geometry/rect';
import { thingsIn, type Thing } from '@/server/accessibility/describe';
import { screen } from '@/server/display/connection';
import { windows } from '@/server/display/windows';
import type { XDisplay } from '@/tests/lib/xDisplay';

/** How long a program may take to be drawn and described whole, ms. */
const PATIENCE = 20_000;

export interface Shown {
  picture: ReadablePixels;
  things: Thing[];
  /** The program's own window. */
  window: Rect;
}

/** Starts a program on an empty display and waits until what it shows and describes stands still. */
export async function shownBy(
  display: XDisplay,
  [program = '', ...args]: readonly string[],
): Promise<Shown> {
  const leave = display.start(program, ...args);
  const until = Date.now() + PATIENCE;
  let before = '';
  while (Date.now() < until) {
    const list = await windows(await screen(display.name), []);
    // One of Qt 5 that is asked while it starts may never describe itself.
    const things = before && list.length > 0 ? await thingsIn(list, 5_000) : [];
    // What moves by itself, such as a bar of progress, never stands still.
    const now = JSON.stringify([list, things.length]);
    const [first] = [...list].sort((a, b) => area(b.bounds) - area(a.bounds));
    if (first && things.length > 1 && now === before) {
      const png = await display.bytes('import', '-window', 'root', 'png:-');
      const { data, info } = await sharp(png)
        .ensureAlpha()
        .raw()
        .toBuffer({ resolveWithObject: true });
      const { width, height } = info;
      await leave();
      return {
        picture: { data: new Uint8ClampedArray(data), width, height },
        things,
        window: first.bounds,
      };
    }
    before = now;
    await new Promise((resolve) => setTimeout(resolve, 700));
  }
  await leave();
  throw new Error(`${program} did not come to rest.`);
}

const area = (r: Rect): number => r.width * r.height;
