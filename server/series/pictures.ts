import sharp from 'sharp';
import { isShown } from '@/core/contracts/display';
import type { Provenance } from '@/core/contracts/provenance';
import type { PageSource, SeriesWhat } from '@/core/contracts/series';
import {
  createDesk,
  deskBounds,
  deskDisplays,
  frontWindow,
  type Desk,
  type DeskWindow,
} from '@/core/desk/model';
import { intersection, outerPixels, type Rect } from '@/core/geometry/rect';
import { Fault } from '../base/fault';
import { stillNow } from '../display/access';
import { provenanceOf as pageProvenance } from '../pages/provenance';
import { reachNow } from '../pages/reachNow';
import { takePage } from '../pages/takePage';
import { run } from '../pool/pool';
import { framed, placeOf, provenanceOf, screenPng } from '../take/takeDisplay';
import { rememberWords } from '../words/known';

/** One picture of a series, and nothing around it. */
export interface Picture {
  /** A picture file. */
  bytes: Buffer;
  provenance: Provenance;
  /** What there is to know about it. */
  said: string[];
}

type Screen = Extract<SeriesWhat, { source: 'display' | 'desk' }>;
/** What the server takes by itself. */
type OwnWhat = Exclude<SeriesWhat, { source: PageSource }>;
type Page = Extract<SeriesWhat, { source: 'web' }>;

const holds = (title: string, words: string): boolean =>
  title.toLowerCase().includes(words.toLowerCase());
const noWindow = (words: string): Fault =>
  new Fault(404, 'no-window', `No window was called “${words}” then.`);
const NOTHING = 'Nothing of that region is on the screen.';

/** The desk's own seed, so that it looks as it does in Take. */
const SEED = 2026;

/** The practice desk at a moment. @throws Fault 404 */
export async function deskPicture(
  { kind, display, window, region }: Screen,
  now = new Date(),
): Promise<Picture> {
  const fresh = createDesk(SEED, now.getTime(), -now.getTimezoneOffset());
  const chosen = kind === 'window' ? deskWindow(fresh, window) : undefined;
  // Nothing lies over a window that was asked for.
  const windows = chosen ? [...fresh.windows.filter((w) => w !== chosen), chosen] : fresh.windows;
  const place = chosen?.bounds ?? (kind === 'region' && region) ?? null;
  const named = deskDisplays.find(({ name }) => name === display);
  const wanted = place || named?.bounds || deskBounds;
  const part = intersection(wanted, deskBounds);
  if (!part) throw new Fault(404, 'off-screen', NOTHING);
  const pixels = await run(
    'desk',
    { desk: { ...fresh, windows }, part },
    { pixels: part.width * part.height },
  );
  const data = new Uint8ClampedArray(pixels.data);
  return {
    bytes: await screenPng({ ...pixels, data }),
    provenance: {
      source: 'desk',
      takenAt: now.toISOString(),
      display: named?.name ?? 'Both displays',
      ...(chosen && { windowTitle: chosen.title }),
    },
    said: [],
  };
}

function deskWindow(desk: Desk, words: string): DeskWindow {
  const shown = desk.windows.filter((w) => !w.minimised);
  const found = words ? shown.findLast((w) => holds(w.title, words)) : frontWindow(desk);
  if (!found) throw noWindow(words);
  return found;
}

async function ofDisplay({ kind, display, window: words, region }: Screen): Promise<Picture> {
  const still = await stillNow();
  try {
    const wanted = words
      ? still.windows.find((w) => isShown(w) && holds(w.title, words))
      : undefined;
    if (kind === 'window' && words && !wanted) throw noWindow(words);
    const { place, window } = await placeOf(still, {
      kind,
      ...(wanted && { windowId: wanted.id }),
      ...(region && { region }),
      ...(display !== 'all' && { monitor: display }),
    });
    const { pixels, crop, visibleOnly } = await framed(still, place, window);
    return {
      bytes: await cut(await screenPng(pixels), crop, pixels),
      provenance: provenanceOf(still, place, window),
      said: visibleOnly ? ['Another window lay over it.'] : [],
    };
  } finally {
    still.letGo();
  }
}

/** What lies around the place is not stored: of a series nobody would look for it. */
async function cut(png: Buffer, crop: Rect, whole: { width: number; height: number }) {
  const { x, y, width, height } = outerPixels(crop);
  if (width === whole.width && height === whole.height) return png;
  const part = { left: x, top: y, width, height };
  return sharp(png, { limitInputPixels: false }).extract(part).png().toBuffer();
}

async function ofPage({ page }: Page, signal: AbortSignal): Promise<Picture> {
  const reach = await reachNow(page.address, false);
  const taken = await takePage(page, reach, () => undefined, signal);
  const provenance = pageProvenance(taken);
  if (taken.words) rememberWords(provenance, taken.words);
  return { bytes: taken.bytes, provenance, said: taken.said };
}

/** Takes what a series takes, as it is now. @throws Fault in words, where it cannot be had */
export function takePicture(what: OwnWhat, signal: AbortSignal): Promise<Picture> {
  if (what.source === 'web') return ofPage(what, signal);
  return what.source === 'desk' ? deskPicture(what) : ofDisplay(what);
}
