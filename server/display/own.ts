import type { Size } from '@/core/geometry/size';
import type { Geometry } from 'x11';
import { isShown } from '@/core/contracts/display';
import { encloses, overlap, type Rect } from '@/core/geometry/rect';
import { visiblePart } from '@/core/region/windowChoice';
import { toRgba, toRgbaWithAlpha, type PixelLayout } from '@/core/screen/pixels';
import { askMaybe, unavailable, type Screen } from './connection';
import { readPixmap, type ScreenPixels } from './pixmap';
import type { FoundWindow } from './windows';

/** The one depth whose windows can be transparent. */
const ALPHA_DEPTH = 32;

/** A window's own pixels, held on the display. Its place is that of what is seen of it as a window. */
interface Held extends Rect {
  pixmap: number;
  layout: PixelLayout;
  hasAlpha: boolean;
  /** Where a part without transparency lies in it; null when none does. */
  opaque: Rect | null;
}

/** A window's own pixels, and where they lie on the screen. */
export type OwnPixels = ScreenPixels & Rect;

export const placeOf = (w: FoundWindow): Rect => w.frameBounds ?? w.bounds;

/** The windows of which not all is seen: others are in front, or they reach over the edge. */
export function coveredOf(found: readonly FoundWindow[], size: Size): FoundWindow[] {
  const shown = found.filter(isShown);
  return shown.filter(
    (w, i) =>
      reachesOut(placeOf(w), size) ||
      shown.slice(i + 1).some((over) => overlap(placeOf(w), placeOf(over))),
  );
}

/**
 * Holds the own pixels of windows of which not all is on the screen.
 * @returns them, as far as they can be had, by window; and all windows of which not all is seen
 */
export async function holdOwn(
  screen: Screen,
  found: readonly FoundWindow[],
  size: Size,
): Promise<{ own: Map<number, Held>; covered: number[] }> {
  const covered = coveredOf(found, size);
  const own = new Map<number, Held>();
  await Promise.all(
    covered.map(async (w) => {
      const held = await hold(screen, w);
      if (held) own.set(w.id, held);
    }),
  );
  return { own, covered: covered.map((w) => w.id) };
}

/** True when a part of a place is beyond the edges of the screen. */
export const reachesOut = (r: Rect, { width, height }: Size): boolean =>
  !encloses({ x: 0, y: 0, width, height }, r);

/** Copies a window whole, at its own depth. @returns null where its own pixels cannot be had */
async function hold(screen: Screen, w: FoundWindow): Promise<Held | null> {
  const { X, composite } = screen;
  if (!composite) return null;
  const [geometry, attributes, inner] = await Promise.all([
    askMaybe<Geometry>((done) => X.GetGeometry(w.top, done)),
    askMaybe<{ visual: number }>((done) => X.GetWindowAttributes(w.top, done)),
    w.id === w.top ? null : askMaybe<Geometry>((done) => X.GetGeometry(w.id, done)),
  ]);
  const layout = geometry && attributes && screen.layoutOf(geometry.depth, attributes.visual);
  if (!layout) return null;
  const { x, y, width, height } = placeOf(w);
  const [named, pixmap, gc] = [X.AllocID(), X.AllocID(), X.AllocID()];
  composite.NameWindowPixmap(w.top, named);
  X.CreatePixmap(pixmap, screen.root, geometry.depth, width, height);
  X.CreateGC(gc, pixmap, { graphicsExposures: 0 });
  // What is named begins with the border; of a frame perhaps only a part is seen.
  X.CopyArea(named, pixmap, gc, x - geometry.xPos, y - geometry.yPos, 0, 0, width, height);
  X.FreeGC(gc);
  X.FreePixmap(named);
  const client = { ...w.bounds, x: w.bounds.x - x, y: w.bounds.y - y };
  return {
    ...{ x, y, width, height, pixmap, layout },
    hasAlpha: geometry.depth === ALPHA_DEPTH,
    opaque: inner && inner.depth !== ALPHA_DEPTH ? client : null,
  };
}

/** @throws Fault 503 */
export async function readOwn(screen: Screen, held: Held | undefined): Promise<OwnPixels> {
  if (!held) throw unavailable(VISIBLE_ONLY);
  const { pixmap, width, height, x, y, layout, hasAlpha, opaque } = held;
  const data = await readPixmap(screen, pixmap, layout, held, (bytes) =>
    hasAlpha
      ? toRgbaWithAlpha(bytes, width, height, layout, opaque)
      : toRgba(bytes, width, height, layout),
  );
  return { x, y, width, height, data };
}

export const VISIBLE_ONLY = 'Only the visible part of this window could be had.';

/** A copy of a screen with a piece laid over it, cut to where monitors are. */
export function paste(screen: ScreenPixels, piece: OwnPixels): ScreenPixels {
  const { width, height } = screen;
  const out = new Uint32Array(screen.data.buffer.slice(0));
  const from = new Uint32Array(piece.data.buffer);
  const seen = visiblePart(piece, screen);
  if (!seen) return screen;
  for (let y = seen.y; y < seen.y + seen.height; y += 1) {
    for (let x = seen.x; x < seen.x + seen.width; x += 1) {
      const at = y * width + x;
      if (out[at] !== 0) out[at] = from[(y - piece.y) * piece.width + x - piece.x] ?? 0;
    }
  }
  return { data: new Uint8ClampedArray(out.buffer), width, height };
}
