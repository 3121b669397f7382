import type { Point } from '../geometry/point';
import { contains, right, bottom, type Rect } from '../geometry/rect';
import type { Shaper } from '../drawing/shaper';
import type { Surface } from '../drawing/surface';
import { deskClock, deskDisplays, frontWindow, type Desk, type DeskDisplay } from './model';
import { DeskLayout } from './layout';
import { addMenu, addRowButton, addWindow } from './windows';

const TOOLTIP_AFTER = 600;
export const BAR_HEIGHT = 44;

/** The strip at the lower edge of the first display that brings the bar out and keeps it. */
export function barShows(desk: Desk): boolean {
  if (!desk.pointer) return false;
  const { bounds } = deskDisplays[0];
  const strip = { ...bounds, y: bottom(bounds) - BAR_HEIGHT, height: BAR_HEIGHT };
  return contains(strip, desk.pointer);
}

/** Everything on the desk but the pointer. */
export function layOutDesk(desk: Desk): DeskLayout {
  const layout = new DeskLayout();
  for (const display of deskDisplays) addGround(layout, display);
  const front = frontWindow(desk);
  for (const window of desk.windows) {
    if (!window.minimised) addWindow(layout, desk, window, window === front);
  }
  const under = desk.pointer && layout.at(desk.pointer);
  const row = /^row:(\d+)$/.exec(under?.id ?? '')?.[1];
  if (row && !desk.menu && !desk.drag) addRowButton(layout, desk, Number(row));
  addMenu(layout, desk);
  if (barShows(desk)) addBar(layout, desk);
  addTooltip(layout, desk);
  return layout;
}

function addGround(layout: DeskLayout, { bounds }: DeskDisplay): void {
  layout.clipped(bounds, () => {
    layout.box(bounds, '#A9C4AE');
    const width = bounds.width;
    const hill = (x: number, y: number, w: number, h: number, fill: string) =>
      layout.oval(
        {
          x: bounds.x + x * width,
          y: bounds.y + y * bounds.height,
          width: w * width,
          height: h * width,
        },
        fill,
      );
    hill(-0.2, 0.35, 0.9, 0.8, '#9CBAA3');
    hill(0.35, 0.5, 1.0, 0.8, '#8DAE97');
    hill(-0.3, 0.72, 1.0, 0.8, '#7C9F88');
    hill(0.55, 0.12, 0.1, 0.1, '#D6E0C6');
  });
}

function addBar(layout: DeskLayout, desk: Desk): void {
  const { bounds } = deskDisplays[0];
  layout.within({ x: bounds.x, y: bottom(bounds) - BAR_HEIGHT }, 1, () => {
    layout.box({ x: 0, y: 0, width: bounds.width, height: BAR_HEIGHT }, '#20352A');
    layout.hot('bar', { x: 0, y: 0, width: bounds.width, height: BAR_HEIGHT });
    const names = (['register', 'exchange', 'sensors', 'notes', 'map'] as const).map((name) =>
      desk.windows.find((w) => w.name === name),
    );
    names.forEach((window, i) => {
      if (!window) return;
      const r = { x: 14 + i * 180, y: 7, width: 170, height: 30 };
      layout.box(r, window.minimised ? '#2E4A3B' : '#3D5F4C', 5);
      layout.words(window.title, r.x + 12, r.y + 6, { colour: '#FFFFFF' });
      layout.hot(`task:${window.name}`, r, 'hand');
    });
    layout.words(deskClock(desk), bounds.width - 160, 13, { colour: '#FFFFFF', fixed: true });
  });
}

function addTooltip(layout: DeskLayout, desk: Desk): void {
  const { pointer } = desk;
  const area = pointer && layout.at(pointer);
  if (!pointer || !area?.tooltip || desk.drag || desk.menu) return;
  if (!isRested(desk)) return;
  const width = area.tooltip.length * 6.6 + 20;
  const display = deskDisplays.find((d) => contains(d.bounds, pointer)) ?? deskDisplays[0];
  const x = Math.min(pointer.x + 12, right(display.bounds) - width * display.scale);
  layout.within({ x, y: pointer.y + 22 }, display.scale, () => {
    const r = { x: 0, y: 0, width, height: 26 };
    layout.box(r, '#FFF8DC', 4);
    layout.frame(r, '#B9A96B', 4);
    layout.words(area.tooltip ?? '', 9, 5, { size: 12 });
  });
}

const isRested = (desk: Desk): boolean => desk.now - desk.restingSince >= TOOLTIP_AFTER;

/**
 * Whether two states of the desk give the same pixels, as far as is known without painting: time
 * passes all the time, but is seen only in the readings of each second and in a tooltip.
 */
export const looksSame = ({ now, ...before }: Desk, after: Desk): boolean =>
  Math.floor(now / 1000) === Math.floor(after.now / 1000) &&
  isRested({ now, ...before }) === isRested(after) &&
  Object.entries(before).every(([name, value]) => value === after[name as keyof Desk]);

/**
 * Paints a part of the desk, without the pointer.
 * @param surface as large as `part`, empty; what no display covers stays transparent
 */
export function paintDesk(surface: Surface, desk: Desk, shaper: Shaper, part: Rect): void {
  surface.save();
  surface.translate(-part.x, -part.y);
  const layout = layOutDesk(desk);
  surface.beginPath();
  for (const { bounds } of deskDisplays) {
    surface.rect(bounds.x, bounds.y, bounds.width, bounds.height);
  }
  surface.clip();
  layout.paint(surface, shaper);
  surface.restore();
}

/** The pointer's picture and the pixel of it that points; never part of a frame. */
export interface PointerImage {
  shape: 'arrow' | 'text' | 'hand';
  hotSpot: Point;
  at: Point;
}

export function deskPointer(desk: Desk): PointerImage | null {
  if (!desk.pointer) return null;
  const shape = layOutDesk(desk).at(desk.pointer)?.shape ?? 'arrow';
  return { shape, hotSpot: shape === 'text' ? { x: 4, y: 9 } : { x: 1, y: 1 }, at: desk.pointer };
}
