import { create } from 'zustand';
import {
  isShown,
  type DisplayAnswer,
  type Monitor,
  type ScreenStill,
} from '@/core/contracts/display';
import { centre, contains, type Rect } from '@/core/geometry/rect';
import { pointerPiece } from '@/core/marks/piece/pointer';
import { api } from '../../api/client';
import { onPicture, type Source, type Stilled, type StillWindow } from './contract';

interface DisplayStore {
  answer: DisplayAnswer | null;
}

/** What this computer's screen shows, as the server last said. */
export const useDisplay = create<DisplayStore>(() => ({ answer: null }));

export async function readDisplay(): Promise<void> {
  useDisplay.setState({ answer: await api.display() });
}

const whole = (s: { width: number; height: number }): Rect => ({
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

async function bitmapOf(bytes: ArrayBuffer, still: ScreenStill, part: Rect): Promise<ImageBitmap> {
  const pixels = new ImageData(new Uint8ClampedArray(bytes), still.width, still.height);
  return createImageBitmap(pixels, part.x, part.y, part.width, part.height);
}

async function still(display: string): Promise<Stilled> {
  const held = await api.stillDisplay();
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
  const { pointer } = held;
  return {
    picture,
    title: focused?.title || monitor?.name || 'This computer',
    origin: { x: part.x, y: part.y },
    windows,
    focused: held.focused,
    pointer: pointer && {
      at: { x: pointer.x - part.x, y: pointer.y - part.y },
      piece: pointerPiece({ ...pointer, x: pointer.x - part.x, y: pointer.y - part.y }),
    },
    withOwn: async (id) =>
      held.own.includes(id) ? bitmapOf(await api.stillPixels(held.id, id), held, part) : null,
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

const namesOf = (monitors: readonly Monitor[]): string =>
  monitors.length > 1 ? 'All displays' : (monitors[0]?.name ?? 'Screen');

export const displaySource: Source = {
  name: 'display',
  label: 'This computer',
  can: { windows: true, pointer: 'piece' },
  displays: () => {
    const { answer } = useDisplay.getState();
    const monitors = answer?.monitors ?? [];
    const each = monitors.map((m) => ({ id: m.name, label: m.name, bounds: m }));
    if (monitors.length < 2) return each;
    const all = whole({ width: answer?.width ?? 0, height: answer?.height ?? 0 });
    return [...each, { id: 'all', label: 'All displays', bounds: all }];
  },
  still,
};
