import { randomUUID } from 'node:crypto';
import type { Monitor, PointerPicture, ScreenStill } from '@/core/contracts/display';
import { limits } from '@/core/contracts/limits';
import { fromPremultipliedArgb, toRgba } from '@/core/screen/pixels';
import type { Fixes, Geometry } from 'x11';
import { ask, askMaybe, unavailable, type Screen } from './connection';
import { monitors as readMonitors } from './monitors';
import { focusedWindow, windows, type FoundWindow } from './windows';

const Z_PIXMAP = 2;
const ALL_PLANES = 0xffffffff;
const INCLUDE_INFERIORS = 1;

/** RGBA, row-major, width × height × 4; a transparent pixel is on no monitor. */
export interface ScreenPixels {
  data: Uint8ClampedArray<ArrayBuffer>;
  width: number;
  height: number;
}

/** A screen as it stood at one moment. Its pixmaps live on the display until it is let go. */
export interface Still extends ScreenStill {
  /** The picture on the display itself, to be shown there without sending it. */
  pixmap: number;
  pixels: () => Promise<ScreenPixels>;
  /** The whole screen with one window's own pixels in front of all others. @throws Fault 410 */
  withOwn: (window: number) => Promise<ScreenPixels>;
  letGo: () => void;
}

/** The size of the screen now: it changes when monitors do. */
export async function screenSize(screen: Screen): Promise<{ width: number; height: number }> {
  const { width, height } = await ask<Geometry>((done) =>
    screen.X.GetGeometry(screen.root, done),
  ).catch(() => {
    throw unavailable('The display is gone. What was taken before is safe.');
  });
  return { width, height };
}

/** Copies the screen and the covered windows on the display itself, which takes no time to speak of. */
export async function stillScreen(screen: Screen): Promise<Still> {
  const { X, root } = screen;
  const { width, height } = await screenSize(screen);
  if (width * height > limits.pixels) throw unavailable('The screen is too large to be taken.');
  const copy = X.AllocID();
  const gc = X.AllocID();
  X.CreatePixmap(copy, root, screen.depth, width, height);
  X.CreateGC(gc, root, { subwindowMode: INCLUDE_INFERIORS, graphicsExposures: 0 });
  X.CopyArea(root, copy, gc, 0, 0, 0, 0, width, height);
  const takenAt = new Date().toISOString();
  const [pointer, monitors] = await Promise.all([
    pointerPicture(screen),
    readMonitors(screen, { width, height }),
  ]);
  const found = await windows(screen, monitors);
  const focused = await focusedWindow(screen, found);
  const own = await holdCovered(screen, gc, found);
  X.FreeGC(gc);
  let reading: Promise<ScreenPixels> | null = null;
  const pixels = () =>
    (reading ??= readPixmap(screen, copy, width, height).then((read) => clearGaps(read, monitors)));
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
    pixmap: copy,
    pixels,
    withOwn: async (id) => paste(await pixels(), await readHeld(screen, own.get(id))),
    letGo: () => {
      if (X.stream.destroyed) return;
      X.FreePixmap(copy);
      for (const held of own.values()) X.FreePixmap(held.pixmap);
    },
  };
}

/** A window's own pixels, held on the display. */
interface Held {
  pixmap: number;
  x: number;
  y: number;
  width: number;
  height: number;
  depth: number;
}

/** Windows that something in front of them may cover, each copied whole. */
async function holdCovered(
  screen: Screen,
  gc: number,
  found: readonly FoundWindow[],
): Promise<Map<number, Held>> {
  const { X, composite } = screen;
  const held = new Map<number, Held>();
  if (!composite) return held;
  const shown = found.filter((w) => !w.minimised);
  const covered = shown.filter((w, i) =>
    shown.slice(i + 1).some((over) => overlap(outer(w), outer(over))),
  );
  await Promise.all(
    covered.map(async (w) => {
      const geometry = await askMaybe<Geometry>((done) => X.GetGeometry(w.top, done));
      // A window of another depth cannot be copied with the screen's own rules.
      if (!geometry || geometry.depth !== screen.depth) return;
      const { x, y, width, height } = outer(w);
      const named = X.AllocID();
      const pixmap = X.AllocID();
      composite.NameWindowPixmap(w.top, named);
      X.CreatePixmap(pixmap, screen.root, screen.depth, width, height);
      X.CopyArea(named, pixmap, gc, 0, 0, 0, 0, width, height);
      X.FreePixmap(named);
      held.set(w.id, { pixmap, x, y, width, height, depth: geometry.depth });
    }),
  );
  return held;
}

const outer = (w: FoundWindow) => w.frameBounds ?? w.bounds;

interface Area {
  x: number;
  y: number;
  width: number;
  height: number;
}

const overlap = (a: Area, b: Area): boolean =>
  a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height;

async function readHeld(screen: Screen, held: Held | undefined): Promise<ScreenPixels & Area> {
  if (!held) throw unavailable('Only the visible part of this window could be had.');
  const { pixmap, width, height, x, y } = held;
  return { x, y, ...(await readPixmap(screen, pixmap, width, height)) };
}

async function readPixmap(
  screen: Screen,
  pixmap: number,
  width: number,
  height: number,
): Promise<ScreenPixels> {
  const { data } = await ask<{ data: Buffer }>((done) =>
    screen.X.GetImage(Z_PIXMAP, pixmap, 0, 0, width, height, ALL_PLANES, done),
  ).catch(() => {
    throw unavailable('The display went away before its picture could be read.');
  });
  return { data: toRgba(data, width, height, screen.layout), width, height };
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

/** A copy of `screen` with `piece` laid over it, cut to where monitors are. */
function paste(screen: ScreenPixels, piece: ScreenPixels & Area): ScreenPixels {
  const { width, height } = screen;
  const out = new Uint32Array(screen.data.buffer.slice(0));
  const from = new Uint32Array(piece.data.buffer);
  for (let y = Math.max(0, piece.y); y < Math.min(height, piece.y + piece.height); y += 1) {
    for (let x = Math.max(0, piece.x); x < Math.min(width, piece.x + piece.width); x += 1) {
      const at = y * width + x;
      if (out[at] !== 0) out[at] = from[(y - piece.y) * piece.width + x - piece.x] ?? 0;
    }
  }
  return { data: new Uint8ClampedArray(out.buffer), width, height };
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
