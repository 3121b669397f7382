import type { Size } from '@/core/geometry/size';
import { randomUUID } from 'node:crypto';
import type { Monitor, PointerPicture, ScreenStill } from '@/core/contracts/display';
import { limits } from '@/core/values/limits';
import { fromPremultipliedArgb, toRgba } from '@/core/screen/pixels';
import type { Fixes, Geometry } from 'x11';
import { askMaybe, unavailable, type Screen } from './connection';
import { monitors as readMonitors } from './monitors';
import { holdOwn, paste, readOwn, type OwnPixels } from './own';
import { readPixmap, type ScreenPixels } from './pixmap';
import { focusedWindow, windows, type FoundWindow } from './windows';
import { personActs } from '../words/quiet';

const INCLUDE_INFERIORS = 1;

/** A screen as it stood at one moment, until it is let go. */
export interface Still extends ScreenStill {
  pixels: () => Promise<ScreenPixels>;
  /** The whole screen with one window's own pixels in front of all others. @throws Fault 503 */
  withOwn: (window: number) => Promise<ScreenPixels>;
  /** A window's own pixels alone, also those beyond the screen's edge. @throws Fault 503 */
  alone: (window: number) => Promise<OwnPixels>;
  letGo: () => void;
}

/** Its pixmaps live on the display. */
export interface DisplayStill extends Still {
  /** The picture on the display itself, to be shown there without sending it. */
  pixmap: number;
}

/** The size of the screen now: it changes when monitors do. */
export async function screenSize(screen: Screen): Promise<Size> {
  const root = await askMaybe<Geometry>((done) => screen.X.GetGeometry(screen.root, done));
  if (!root) throw unavailable('The display is gone. What was taken before is safe.');
  return { width: root.width, height: root.height };
}

/** What is known of a screen beside its pixels. */
export interface Around extends Pick<ScreenStill, 'pointer' | 'monitors' | 'focused'> {
  found: FoundWindow[];
}

export async function readAround(screen: Screen, size: Size): Promise<Around> {
  const [pointer, monitors] = await Promise.all([
    pointerPicture(screen),
    readMonitors(screen, size),
  ]);
  const found = await windows(screen, monitors);
  return { pointer, monitors, found, focused: await focusedWindow(screen, found) };
}

/** Copies the screen and the covered windows on the display itself, which takes no time to speak of. */
export async function stillScreen(screen: Screen): Promise<DisplayStill> {
  personActs();
  const { X, root } = screen;
  const { width, height } = await screenSize(screen);
  if (width * height > limits.pixels) throw unavailable('The screen is too large to be taken.');
  const copy = X.AllocID();
  const gc = X.AllocID();
  X.CreatePixmap(copy, root, screen.depth, width, height);
  X.CreateGC(gc, root, { subwindowMode: INCLUDE_INFERIORS, graphicsExposures: 0 });
  X.CopyArea(root, copy, gc, 0, 0, 0, 0, width, height);
  const takenAt = new Date().toISOString();
  const { pointer, monitors, found, focused } = await readAround(screen, { width, height });
  X.FreeGC(gc);
  const { own, covered } = await holdOwn(screen, found, { width, height });
  let reading: Promise<ScreenPixels> | null = null;
  const read = async () => {
    const { layout } = screen;
    const data = await readPixmap(screen, copy, layout, { width, height }, (bytes) =>
      toRgba(bytes, width, height, layout),
    );
    return clearGaps({ data, width, height }, monitors);
  };
  const pixels = () => (reading ??= read());
  return {
    id: randomUUID(),
    takenAt,
    width,
    height,
    monitors,
    windows: found.map(({ top: _, ...window }) => window),
    focused,
    pointer,
    own: [...own.keys()],
    covered,
    pixmap: copy,
    pixels,
    withOwn: async (id) => paste(await pixels(), await readOwn(screen, own.get(id))),
    alone: (id) => readOwn(screen, own.get(id)),
    letGo: () => {
      if (X.stream.destroyed) return;
      X.FreePixmap(copy);
      for (const held of own.values()) X.FreePixmap(held.pixmap);
    },
  };
}

/** What no monitor shows is no part of the picture. */
export function clearGaps(picture: ScreenPixels, monitors: readonly Monitor[]): ScreenPixels {
  const { width, height, data } = picture;
  const whole = monitors.some(
    (m) => m.x <= 0 && m.y <= 0 && m.x + m.width >= width && m.y + m.height >= height,
  );
  if (whole) return picture;
  const words = new Uint32Array(data.buffer);
  for (let y = 0; y < height; y += 1) {
    const row = monitors.filter((m) => y >= m.y && y < m.y + m.height).sort((a, b) => a.x - b.x);
    let from = 0;
    for (const m of row) {
      if (m.x > from) words.fill(0, y * width + from, y * width + Math.min(m.x, width));
      from = Math.max(from, m.x + m.width);
    }
    if (from < width) words.fill(0, y * width + from, (y + 1) * width);
  }
  return picture;
}

async function pointerPicture({ X, fixes }: Screen): Promise<PointerPicture | null> {
  if (!fixes) return null;
  const image = await askMaybe<Parameters<Parameters<Fixes['GetCursorImageAndName']>[0]>[1]>(
    (done) => fixes.GetCursorImageAndName(done),
  );
  if (!image || X.stream.destroyed) return null;
  const { width, height } = image;
  const rgba = fromPremultipliedArgb(image.cursorImage);
  return {
    x: image.x,
    y: image.y,
    name: image.cursorName,
    hotSpot: { x: image.xhot, y: image.yhot },
    width,
    height,
    rgba: Buffer.from(rgba.buffer).toString('base64'),
  };
}
