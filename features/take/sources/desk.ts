import { create } from 'zustand';
import { paintDesk } from '@/core/desk/build';
import { deskEvent, type DeskEvent } from '@/core/desk/events';
import { createDesk, deskBounds, deskDisplays, frontWindow, type Desk } from '@/core/desk/model';
import type { Rect } from '@/core/geometry/rect';
import { loadShaper } from '@/workers/loadShaper';
import type { Source, Stilled } from './contract';

interface DeskStore {
  desk: Desk;
  send: (event: DeskEvent) => void;
}

const SEED = 2026;

const startDesk = (): Desk => createDesk(SEED, Date.now(), -new Date().getTimezoneOffset());

/** The live practice desk of this tab. */
export const useDesk = create<DeskStore>((set) => ({
  desk: startDesk(),
  send: (event) => set(({ desk }) => ({ desk: deskEvent(desk, event) })),
}));

/** The part of the desk that a choice of display means. */
export const deskPart = (display: string): Rect =>
  deskDisplays.find((d) => d.name === display)?.bounds ?? deskBounds;

async function still(display: string): Promise<Stilled> {
  const shaper = await loadShaper();
  const { desk } = useDesk.getState();
  const part = deskPart(display);
  const canvas = new OffscreenCanvas(part.width, part.height);
  const surface = canvas.getContext('2d', { willReadFrequently: true });
  if (!surface) throw new Error('This browser gives no canvas of that size.');
  paintDesk(surface, desk, shaper, part);
  const shown = deskDisplays.filter((d) => display === 'all' || d.name === display);
  const front = frontWindow(desk, shown.length === 1 ? shown[0] : undefined);
  return {
    picture: await createImageBitmap(canvas),
    title: front?.title ?? 'Practice desk',
    provenance: {
      source: 'desk',
      takenAt: new Date().toISOString(),
      display: shown.length === 1 ? shown[0]?.name : 'Both displays',
      windowTitle: front?.title,
    },
  };
}

export const deskSource: Source = {
  name: 'desk',
  label: 'Practice desk',
  displays: [
    ...deskDisplays.map(({ name }) => ({ id: name, label: `${name} display` })),
    { id: 'all', label: 'Both displays' },
  ],
  still,
};
