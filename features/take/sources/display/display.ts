import type { Way } from '@/core/contracts/way';
import type { Size } from '@/core/geometry/size';
import { create } from 'zustand';
import {
  isShown,
  type DisplayAnswer,
  type Monitor,
  type ScreenStill,
} from '@/core/contracts/display';
import type { Point } from '@/core/geometry/point';
import { centre, contains, encloses, type Rect } from '@/core/geometry/rect';
import { pointerPiece } from '@/core/take/pointerPiece';
import { api } from '../../../api/client';
import { displayHolder } from './held';
import {
  onPicture,
  type Abilities,
  type OwnPicture,
  type ShownThere,
  type Unseen,
  type Stilled,
  type StillPointer,
  type StillWindow,
  type Turn,
  type Wanted,
} from '../contract';

interface DisplayStore {
  answer: DisplayAnswer | null;
}

/** What this computer's screen shows, as the server last said. */
export const useDisplay = create<DisplayStore>(() => ({ answer: null }));

export async function readDisplay(): Promise<void> {
  useDisplay.setState({ answer: await api.display() });
}

const whole = (s: Size): Rect => ({
  x: 0,
  y: 0,
  width: s.width,
  height: s.height,
});

function partOf(still: ScreenStill, display: string): Rect {
  const named = still.monitors.find((m) => m.name === display);
  if (named) return named;
  if (display === 'all') return whole(still);
  const { pointer } = still;
  return (
    (pointer && still.monitors.find((m) => contains(m, pointer))) ??
    still.monitors.find((m) => m.primary) ??
    whole(still)
  );
}

async function bitmapOf(bytes: ArrayBuffer, size: Size, part: Rect): Promise<ImageBitmap> {
  const pixels = new ImageData(new Uint8ClampedArray(bytes), size.width, size.height);
  return createImageBitmap(pixels, part.x, part.y, part.width, part.height);
}

/** The pointer on a picture whose corner lies there on the screen. */
function pointerOn({ pointer }: ScreenStill, corner: Point): StillPointer | null {
  if (!pointer) return null;
  const at = { x: pointer.x - corner.x, y: pointer.y - corner.y };
  return { at, piece: pointerPiece({ ...pointer, ...at }) };
}

/** A window by its own pixels: with what is around it, or alone where it reaches over the edge. */
async function ofWindow(held: ScreenStill, part: Rect, id: number): Promise<OwnPicture | null> {
  const window = held.windows.find((w) => w.id === id);
  if (!window || !held.own.includes(id)) return null;
  const place = window.frameBounds ?? window.bounds;
  if (encloses(part, place)) {
    const picture = await bitmapOf(await api.stillPixels(held.id, id), held, part);
    return { picture, origin: { x: 0, y: 0 }, whole: true, pointer: pointerOn(held, part) };
  }
  const picture = await bitmapOf(await api.stillPixels(held.id, id, true), place, whole(place));
  const origin = { x: place.x - part.x, y: place.y - part.y };
  return { picture, origin, whole: true, pointer: pointerOn(held, place) };
}

/** The screen as it is now, as it was stilled before, or at a moment that is held. */
function stillOf({ held, moment }: Wanted): Promise<ScreenStill> {
  if (moment) return api.stillOfMoment(moment.id);
  return held ? api.heldStill(held) : api.stillDisplay();
}

async function still(wanted: Wanted): Promise<Stilled> {
  const held = await stillOf(wanted);
  const { display } = wanted;
  const part = partOf(held, display);
  const picture = await bitmapOf(await api.stillPixels(held.id), held, part);
  const windows: StillWindow[] = held.windows.filter(isShown).map((w) => ({
    id: w.id,
    title: w.title || w.program || 'Window without a name',
    program: w.program,
    type: w.type,
    bounds: onPicture(w.bounds, part),
    frameBounds: w.frameBounds && onPicture(w.frameBounds, part),
    visibleOnly: held.covered.includes(w.id) && !held.own.includes(w.id),
  }));
  const focused = held.windows.find((w) => w.id === held.focused);
  const monitor = held.monitors.find((m) => contains(m, centre(part)));
  return {
    picture,
    title: focused?.title || monitor?.name || 'This computer',
    origin: { x: part.x, y: part.y },
    windows: held.noWindowList ? null : windows,
    focused: held.focused,
    pointer: pointerOn(held, part),
    ofWindow: (id) => ofWindow(held, part, id),
    // Programs tell of what they show now; of a moment that is gone they would tell something else.
    ...(!wanted.moment && {
      described: async () =>
        (await api.stillParts(held.id)).map((d) => ({ ...d, ...onPicture(d, part) })),
    }),
    letGo: () => void api.dropStill(held.id).catch(() => undefined),
    provenance: {
      source: 'display',
      takenAt: held.takenAt,
      display:
        part.width < held.width || part.height < held.height
          ? monitor?.name
          : namesOf(held.monitors),
      windowTitle: focused?.title || undefined,
      program: focused?.program || undefined,
    },
  };
}

async function scroll({ clicks, across, at }: Turn): Promise<void> {
  if (!at) throw new Error('Scroll a little by hand first. Then it can go on by itself.');
  await api.turnWheel({ ...at, clicks, across });
}

/** A screen of which nothing is stilled: only what it is called is asked for. */
async function filmThere({
  display,
  pointer,
  pressed,
}: Pick<Way, 'display' | 'pointer' | 'pressed'>) {
  const answer = await api.display();
  if (!answer.available) throw new Error(answer.reason);
  const { monitors, pointer: at, focused, windows } = answer;
  const shown =
    monitors.find(({ name }) => name === display) ??
    (at && monitors.find((monitor) => contains(monitor, at))) ??
    monitors[0];
  const { width, height } = (display !== 'all' && shown) || {
    ...{ width: answer.width ?? 0, height: answer.height ?? 0 },
  };
  return {
    ...{ width, height },
    title: windows.find(({ id }) => id === focused)?.title ?? shown?.name ?? 'This computer',
    begin: (id: string, title: string, part: ShownThere) =>
      api.beginDisplayClip({ id, title, display, pointer, pressed, ...part }),
  };
}

const namesOf = (monitors: readonly Monitor[]): string =>
  monitors.length > 1 ? 'All displays' : (monitors[0]?.name ?? 'Screen');

const CLIP =
  'This desktop gives one picture at a time. Share the screen with Shared screen to record it.';

const withLists: Abilities = {
  windows: true,
  pointer: 'piece',
  long: true,
  series: true,
  back: true,
  clip: true,
  pressed: true,
  follows: true,
};
const withoutLists: Abilities = {
  // Found in the picture.
  windows: true,
  pointer: { not: 'This desktop decides by itself whether the pointer is in the picture.' },
  long: 'This desktop gives one picture at a time, each after being asked.',
  series: 'This desktop gives a picture only after being asked, and nobody would be there.',
  back: 'This desktop gives one picture at a time, each after being asked.',
  clip: CLIP,
};

export const displaySource: Unseen = {
  name: 'display',
  label: 'This computer',
  get can() {
    return useDisplay.getState().answer?.noWindowList ? withoutLists : withLists;
  },
  changes: (heard) => useDisplay.subscribe(heard),
  displays: () => {
    const { answer } = useDisplay.getState();
    const monitors = answer?.monitors ?? [];
    const each = monitors.map((m) => ({ id: m.name, label: m.name, bounds: m }));
    if (monitors.length < 2) return each;
    const all = whole({ width: answer?.width ?? 0, height: answer?.height ?? 0 });
    return [...each, { id: 'all', label: 'All displays', bounds: all }];
  },
  showsRezzik: true,
  holder: displayHolder,
  still,
  scroll,
  filmThere,
};
