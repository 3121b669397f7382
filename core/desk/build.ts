import type { Point } from '../geometry/point';
import { contains, right, bottom, type Rect } from '../geometry/rect';
import type { Shaper } from '../drawing/shaper';
import type { Surface } from '../drawing/surface';
import { deskClock, deskDisplays, frontWindow, type Desk, type DeskDisplay } from './model';
import { Scene } from './scene';
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
export function buildScene(desk: Desk): Scene {
  const scene = new Scene();
  for (const display of deskDisplays) addGround(scene, display);
  const front = frontWindow(desk);
  for (const window of desk.windows) {
    if (!window.minimised) addWindow(scene, desk, window, window === front);
  }
  const under = desk.pointer && scene.at(desk.pointer);
  const row = /^row:(\d+)$/.exec(under?.id ?? '')?.[1];
  if (row && !desk.menu && !desk.drag) addRowButton(scene, desk, Number(row));
  addMenu(scene, desk);
  if (barShows(desk)) addBar(scene, desk);
  addTooltip(scene, desk);
  return scene;
}

function addGround(scene: Scene, { bounds }: DeskDisplay): void {
  scene.clipped(bounds, () => {
    scene.box(bounds, '#A9C4AE');
    const width = bounds.width;
    const hill = (x: number, y: number, w: number, h: number, fill: string) =>
      scene.oval(
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

function addBar(scene: Scene, desk: Desk): void {
  const { bounds } = deskDisplays[0];
  scene.within({ x: bounds.x, y: bottom(bounds) - BAR_HEIGHT }, 1, () => {
    scene.box({ x: 0, y: 0, width: bounds.width, height: BAR_HEIGHT }, '#20352A');
    scene.hot('bar', { x: 0, y: 0, width: bounds.width, height: BAR_HEIGHT });
    const names = (['register', 'exchange', 'sensors', 'notes', 'map'] as const).map((name) =>
      desk.windows.find((w) => w.name === name),
    );
    names.forEach((window, i) => {
      if (!window) return;
      const r = { x: 14 + i * 180, y: 7, width: 170, height: 30 };
      scene.box(r, window.minimised ? '#2E4A3B' : '#3D5F4C', 5);
      scene.words(window.title, r.x + 12, r.y + 6, { colour: '#FFFFFF' });
      scene.hot(`task:${window.name}`, r, 'hand');
    });
    scene.words(deskClock(desk), bounds.width - 160, 13, { colour: '#FFFFFF', fixed: true });
  });
}

function addTooltip(scene: Scene, desk: Desk): void {
  const { pointer } = desk;
  const area = pointer && scene.at(pointer);
  if (!pointer || !area?.tooltip || desk.drag || desk.menu) return;
  if (!isRested(desk)) return;
  const width = area.tooltip.length * 6.6 + 20;
  const display = deskDisplays.find((d) => contains(d.bounds, pointer)) ?? deskDisplays[0];
  const x = Math.min(pointer.x + 12, right(display.bounds) - width * display.scale);
  scene.within({ x, y: pointer.y + 22 }, display.scale, () => {
    const r = { x: 0, y: 0, width, height: 26 };
    scene.box(r, '#FFF8DC', 4);
    scene.frame(r, '#B9A96B', 4);
    scene.words(area.tooltip ?? '', 9, 5, { size: 12 });
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
  const scene = buildScene(desk);
  surface.beginPath();
  for (const { bounds } of deskDisplays) {
    surface.rect(bounds.x, bounds.y, bounds.width, bounds.height);
  }
  surface.clip();
  scene.paint(surface, shaper);
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
  const shape = buildScene(desk).at(desk.pointer)?.shape ?? 'arrow';
  return { shape, hotSpot: shape === 'text' ? { x: 4, y: 9 } : { x: 1, y: 1 }, at: desk.pointer };
}
