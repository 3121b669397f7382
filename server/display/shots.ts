import { setTimeout as wait } from 'node:timers/promises';
import sharp from 'sharp';
import type { DisplayShot, ScreenWindow } from '@/core/contracts/display';
import type { Provenance } from '@/core/contracts/provenance';
import type { Stored } from '@/core/contracts/shot';
import { centre, contains, type Rect } from '@/core/geometry/rect';
import { pointerPiece } from '@/core/marks/piece/pointer';
import { untouched } from '@/core/shot/document';
import { Fault } from '../http/fault';
import { storeShot } from '../shots/store';
import { getSettings } from '../settings/settings';
import { allowedScreen } from './access';
import { stillScreen, type ScreenPixels, type Still } from './still';

/** Pixels of a screen as a PNG; fast rather than small, since the server stores it on this computer. */
export const screenPng = ({ data, width, height }: ScreenPixels): Promise<Buffer> =>
  sharp(data, { raw: { width, height, channels: 4 } })
    .png({ compressionLevel: 3 })
    .toBuffer();

/** Takes as asked, at once or after the delay, and stores the shot. @throws Fault 400, 403, 404, 503 */
export async function takeDisplay(wish: DisplayShot): Promise<Stored> {
  await allowedScreen();
  if (wish.delay > 0) await wait(wish.delay * 1000);
  const still = await stillScreen(await allowedScreen());
  try {
    const window = wish.kind === 'window' ? await wantedWindow(still, wish.windowId) : undefined;
    const crop = visible(still, wantedPlace(still, wish, window));
    const covered = window && still.own.includes(window.id);
    const pixels = covered ? await still.withOwn(window.id) : await still.pixels();
    const document = { ...untouched(pixels), view: { crop } };
    const piece = wish.pointer && still.pointer ? pointerPiece(still.pointer) : null;
    return await storeShot({
      picture: await screenPng(pixels),
      provenance: provenanceOf(still, crop, window),
      document: piece ? { ...document, marks: [piece] } : document,
    });
  } finally {
    still.letGo();
  }
}

export function provenanceOf(still: Still, crop: Rect, window?: ScreenWindow): Provenance {
  const monitor = still.monitors.find((m) => contains(m, centre(crop)));
  const named = window?.title ? { windowTitle: window.title } : {};
  return {
    source: 'display',
    takenAt: still.takenAt,
    display: still.monitors.length === 1 || monitor ? monitor?.name : 'All displays',
    ...named,
    ...(window?.program && { program: window.program }),
  };
}

async function wantedWindow(still: Still, id: number | undefined): Promise<ScreenWindow> {
  const wanted = id ?? (await windowInUse(still));
  const window = still.windows.find((w) => w.id === wanted);
  if (!window) {
    const words = id === undefined ? 'No window is in use now.' : 'This window is gone.';
    throw new Fault(404, 'no-window', words);
  }
  if (window.minimised) {
    throw new Fault(404, 'no-window', 'This window is minimised, so there is no picture of it.');
  }
  return window;
}

/** The focused window, or the one under the pointer, as set. */
async function windowInUse({ windows, focused, pointer }: Still): Promise<number | null> {
  const { inUseIs } = await getSettings();
  if (inUseIs === 'focused' || !pointer) return focused;
  const under = windows.findLast(
    (w) => !w.minimised && contains(w.frameBounds ?? w.bounds, pointer),
  );
  return under?.id ?? null;
}

function wantedPlace(still: Still, wish: DisplayShot, window: ScreenWindow | undefined): Rect {
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
  const x = Math.max(0, place.x);
  const y = Math.max(0, place.y);
  const width = Math.min(still.width, place.x + place.width) - x;
  const height = Math.min(still.height, place.y + place.height) - y;
  if (width < 1 || height < 1) {
    throw new Fault(400, 'off-screen', 'Nothing of that place is on the screen.');
  }
  return { x, y, width, height };
}
