import type { Point } from '../geometry/point';
import { contains, union, type Rect } from '../geometry/rect';

/**
 * The practice desk: a small stand-in for a computer's screen. Its whole state is here, so the
 * same seed, time and events give the same pixels. Places are desk pixels over all displays.
 */
export interface Desk {
  seed: number;
  /** Milliseconds since 1970. */
  now: number;
  /** Minutes that the desk's clock is ahead of UTC. */
  utcOffset: number;
  /** From back to front. */
  windows: readonly DeskWindow[];
  /** Null while the pointer is elsewhere. */
  pointer: Point | null;
  /** Since when the pointer has rested on what it is on. */
  restingSince: number;
  menu: { window: WindowName; name: MenuName } | null;
  /** The entry of the open menu that the arrow keys are on. */
  menuEntry: number;
  alt: boolean;
  drag: { window: WindowName; grab: Point } | null;
  /** What the last click did, shown in the windows' own foot lines. */
  said: Partial<Record<WindowName, string>>;
  scroll: number;
  notes: string;
}

export type WindowName = 'register' | 'exchange' | 'sensors' | 'notes' | 'map';
export type MenuName = 'Beds' | 'Labels';

export interface DeskWindow {
  name: WindowName;
  title: string;
  bounds: Rect;
  minimised: boolean;
}

export interface DeskDisplay {
  name: string;
  bounds: Rect;
  /** Desk pixels for one unit of its windows' layout. */
  scale: number;
}

/** Two displays of different size and scale, not level, so the whole desk has empty corners. */
export const deskDisplays: readonly [DeskDisplay, DeskDisplay] = [
  { name: 'Left', bounds: { x: 0, y: 180, width: 1440, height: 900 }, scale: 1 },
  { name: 'Right', bounds: { x: 1440, y: 0, width: 1600, height: 1200 }, scale: 1.5 },
];

export const deskBounds: Rect = union(deskDisplays.map((d) => d.bounds));

const window = (name: WindowName, title: string, bounds: Rect, minimised = false): DeskWindow => ({
  name,
  title,
  bounds,
  minimised,
});

export const windowTitles: Record<WindowName, string> = {
  register: 'Plant register',
  exchange: 'Seed exchange – order',
  sensors: 'Sensors',
  notes: 'Garden notes',
  map: 'Bed map',
};

/** A fresh desk for a seed and a time in milliseconds since 1970. */
export function createDesk(seed: number, now: number, utcOffset = 0): Desk {
  return {
    seed,
    now,
    utcOffset,
    windows: [
      window('map', windowTitles.map, { x: 2080, y: 620, width: 840, height: 520 }),
      window('notes', windowTitles.notes, { x: 1500, y: 560, width: 660, height: 480 }),
      window('sensors', windowTitles.sensors, { x: 1560, y: 70, width: 760, height: 430 }),
      window('register', windowTitles.register, { x: 48, y: 226, width: 700, height: 560 }),
      window('exchange', windowTitles.exchange, { x: 640, y: 430, width: 620, height: 430 }),
    ],
    pointer: null,
    restingSince: now,
    menu: null,
    menuEntry: -1,
    alt: false,
    drag: null,
    said: {},
    scroll: 0,
    notes: 'Frost tonight. Cover the north bank before six.',
  };
}

/** The display a window belongs to: the one that holds its middle, else the first. */
export function displayOf(bounds: Rect): DeskDisplay {
  const middle = { x: bounds.x + bounds.width / 2, y: bounds.y + Math.min(20, bounds.height / 2) };
  return deskDisplays.find((d) => contains(d.bounds, middle)) ?? deskDisplays[0];
}

/** The front window on a display, whose title names a take of it. */
export function frontWindow(desk: Desk, display?: DeskDisplay): DeskWindow | undefined {
  return desk.windows.findLast(
    (w) => !w.minimised && (!display || displayOf(w.bounds) === display),
  );
}

/** A repeatable number 0–1 for a seed and a step (integer hash after Wellons, “lowbias32”). */
export function seeded(seed: number, step: number): number {
  let h = Math.imul(seed ^ Math.imul(step, 0x9e3779b1), 1) >>> 0;
  h = Math.imul(h ^ (h >>> 16), 0x7feb352d) >>> 0;
  h = Math.imul(h ^ (h >>> 15), 0x846ca68b) >>> 0;
  return ((h ^ (h >>> 16)) >>> 0) / 0x100000000;
}

/** A sensor's reading at the desk's time: a new one every second. */
export function reading(desk: Desk, sensor: number): number {
  const second = Math.floor(desk.now / 1000);
  const slow = Math.sin((second / 600 + sensor) * 1.7) * 3;
  return Math.round((11 + sensor + slow + seeded(desk.seed + sensor, second)) * 10) / 10;
}

/** The desk's clock as its bar shows it. */
export function deskClock(desk: Desk): string {
  return new Date(desk.now + desk.utcOffset * 60_000).toISOString().slice(0, 16).replace('T', '  ');
}
