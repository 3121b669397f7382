import { setTimeout as wait } from 'node:timers/promises';
import sharp from 'sharp';
import {
  isShown,
  type DisplayShot,
  type DisplayStored,
  type ScreenWindow,
} from '@/core/contracts/display';
import type { Provenance } from '@/core/contracts/provenance';
import { subtract, type Point } from '@/core/geometry/point';
import { takenDocument } from '@/core/take/takenDocument';
import { windowInUse } from '@/core/take/windowInUse';
import { centre, contains, type Rect } from '@/core/geometry/rect';
import { pointerPiece } from '@/core/take/pointerPiece';
import type { Mark } from '@/core/marks/registry';
import { visiblePart } from '@/core/region/windowChoice';
import { Fault } from '../base/fault';
import { storeShot } from '../shots/store';
import { NO_WINDOWS } from '../display/portalStill';
import { getSettings } from '../settings/settings';
import { checkAllowed, stillNow } from '../display/access';
import { reachesOut } from '../display/own';
import type { ScreenPixels } from '../display/pixmap';
import { thenSaid } from './then';
import type { Still } from '../display/still';

/** Pixels of a screen as a PNG; fast rather than small, since the server stores it on this computer. */
export const screenPng = ({ data, width, height }: ScreenPixels): Promise<Buffer> =>
  sharp(data, { raw: { width, height, channels: 4 } })
    .png({ compressionLevel: 3 })
    .toBuffer();

/** What a take keeps. Where a window reaches over the edge of the screen, that is its own picture. */
interface Framed {
  pixels: ScreenPixels;
  /** Of these pixels. */
  crop: Rect;
  /** Where they begin on the screen. */
  origin: Point;
  /** The window is covered, and its own pixels could not be had. */
  visibleOnly: boolean;
  /** It reaches over the edge of the screen, and what lies beyond could not be had. */
  offDisplay: boolean;
}

/** The picture for a place, or for a window that takes up this place. @throws Fault 400, 503 */
export async function framed(still: Still, place: Rect, window?: ScreenWindow): Promise<Framed> {
  const isOwn = window !== undefined && still.own.includes(window.id);
  const visibleOnly = window !== undefined && !isOwn && still.covered.includes(window.id);
  if (isOwn && reachesOut(window.frameBounds ?? window.bounds, still)) {
    const pixels = await still.alone(window.id);
    const crop = visiblePart({ ...place, x: place.x - pixels.x, y: place.y - pixels.y }, pixels);
    const origin = { x: pixels.x, y: pixels.y };
    if (crop) return { pixels, crop, origin, visibleOnly, offDisplay: false };
  }
  const crop = visible(still, place);
  const pixels = isOwn ? await still.withOwn(window.id) : await still.pixels();
  const offDisplay = window !== undefined && reachesOut(window.frameBounds ?? window.bounds, still);
  return { pixels, crop, origin: { x: 0, y: 0 }, visibleOnly, offDisplay };
}

/** The pointer on a picture that begins at `origin`; null where the screen tells of none. */
export function pointerOn(
  { pointer }: Still,
  origin: Point,
): { at: Point; piece: Mark | null } | null {
  if (!pointer) return null;
  const at = subtract(pointer, origin);
  return { at, piece: pointerPiece({ ...pointer, ...at }) };
}

/** Takes as asked, at once or after the delay, stores the shot, and does what is asked then. @throws Fault 400, 403, 404, 503 */
export async function takeDisplay(wish: DisplayShot): Promise<DisplayStored> {
  await checkAllowed();
  if (wish.delay > 0) await wait(wish.delay * 1000);
  return takeOf(await stillNow(), wish);
}

/** The same of a screen that is still already, which is let go. @throws Fault 400, 404, 503 */
export async function takeOf(
  still: Still,
  wish: Omit<DisplayShot, 'delay'>,
): Promise<DisplayStored> {
  try {
    const { place, window } = await placeOf(still, wish);
    const { pixels, crop, origin, visibleOnly, offDisplay } = await framed(still, place, window);
    const pointer = wish.pointer ? pointerOn(still, origin) : null;
    const stored = await storeShot({
      picture: await screenPng(pixels),
      provenance: provenanceOf(still, visiblePart(place, still) ?? place, window),
      document: takenDocument(pixels, { crop }, pointer),
    });
    const said = await thenSaid(wish.then, { id: stored.id, leaves: { format: null, size: null } });
    return {
      ...stored,
      ...(visibleOnly && { visibleOnly }),
      ...(offDisplay && { offDisplay }),
      ...(said.length > 0 && { said }),
    };
  } finally {
    still.letGo();
  }
}

export function provenanceOf(
  still: Still,
  crop: Rect,
  window?: ScreenWindow,
  part?: string,
): Provenance {
  const monitor = still.monitors.find((m) => contains(m, centre(crop)));
  const named = window?.title ? { windowTitle: window.title } : {};
  return {
    source: 'display',
    takenAt: still.takenAt,
    display: still.monitors.length === 1 || monitor ? monitor?.name : 'All displays',
    ...named,
    ...(window?.program && { program: window.program }),
    ...(part && { part }),
  };
}

/** Where on the screen what is wished for lies, and its window. @throws Fault 400, 404 */
export async function placeOf(
  still: Still,
  wish: Pick<DisplayShot, 'kind' | 'windowId' | 'region' | 'monitor'>,
): Promise<{ place: Rect; window: ScreenWindow | undefined }> {
  const window = wish.kind === 'window' ? await wantedWindow(still, wish.windowId) : undefined;
  return { place: wantedPlace(still, wish, window), window };
}

async function wantedWindow(still: Still, id: number | undefined): Promise<ScreenWindow> {
  if (still.noWindowList) throw new Fault(404, 'no-window', NO_WINDOWS);
  const wanted = id === undefined ? await inUse(still) : undefined;
  const window = wanted ?? still.windows.find((w) => w.id === id);
  if (!window) {
    const words = id === undefined ? 'No window is in use now.' : 'This window is gone.';
    throw new Fault(404, 'no-window', words);
  }
  if (window.minimised) {
    throw new Fault(404, 'no-window', 'This window is minimised, so there is no picture of it.');
  }
  if (!isShown(window)) {
    const words = `This window is on the desktop “${window.desktop}”, so there is no picture of it.`;
    throw new Fault(404, 'no-window', words);
  }
  return window;
}

/** The focused window, or the one under the pointer, as set. */
async function inUse({ windows, focused, pointer }: Still): Promise<ScreenWindow | undefined> {
  const { inUseIs } = await getSettings();
  const seen = { windows: windows.filter(isShown), focused, pointer };
  return windowInUse(seen, inUseIs);
}

function wantedPlace(
  still: Still,
  wish: Parameters<typeof placeOf>[1],
  window: ScreenWindow | undefined,
): Rect {
  if (window) return window.frameBounds ?? window.bounds;
  if (wish.kind === 'region') {
    if (!wish.region) throw new Fault(400, 'no-region', 'A region needs x, y, width and height.');
    return wish.region;
  }
  const whole = { x: 0, y: 0, width: still.width, height: still.height };
  if (wish.monitor === undefined) return whole;
  const monitor = still.monitors.find((m) => m.name === wish.monitor);
  if (!monitor) {
    const names = still.monitors.map((m) => m.name).join(', ');
    throw new Fault(404, 'no-monitor', `There is no monitor of that name. There are: ${names}.`);
  }
  return monitor;
}

/** The part of a place that is on the screen. @throws Fault 400 when there is none */
function visible(still: Still, place: Rect): Rect {
  const part = visiblePart(place, still);
  if (!part) throw new Fault(400, 'off-screen', 'Nothing of that place is on the screen.');
  return part;
}
