import { traceView } from '@/core/document/viewShape';
import { rimOf } from '@/core/geometry/rect';
import { kindOf, type Mark } from '@/core/marks/registry';
import { paintMark } from '@/core/paint/paintMark';
import type { PaintScene } from '@/core/paint/scene';
import type { Sight } from './sight';

/** Some marks as they lie over others, and how they are laid on. */
export interface Sheet {
  canvas: HTMLCanvasElement;
  blend: GlobalCompositeOperation;
}

/** From this enlargement on, pixels are shown as squares. */
const SHARP_FROM = 2;

/** The frame with what is hidden and some marks on it. */
export function paintBelow(
  surface: CanvasRenderingContext2D,
  sight: Sight,
  marks: readonly Mark[],
  scene: PaintScene,
): void {
  enter(surface, sight);
  drawFrame(surface, sight);
  scene.drawHidden(surface, sight.active === null ? {} : { except: sight.active });
  for (const mark of marks) paintMark(surface, mark, sight.tools, scene);
}

export function paintSheets(
  target: CanvasRenderingContext2D,
  sheets: readonly Sheet[],
  place: DOMMatrix2DInit = {},
): void {
  target.save();
  target.setTransform(place);
  for (const sheet of sheets) {
    target.globalCompositeOperation = sheet.blend;
    target.drawImage(sheet.canvas, 0, 0);
  }
  target.restore();
}

export function context(canvas: HTMLCanvasElement): CanvasRenderingContext2D {
  const surface = canvas.getContext('2d');
  if (!surface) throw new Error('This browser gives no canvas of that size.');
  return surface;
}

export function sheetOf(sight: Sight, before: HTMLCanvasElement | null = null): HTMLCanvasElement {
  const canvas = before ?? document.createElement('canvas');
  canvas.width = Math.max(1, Math.round(sight.width * sight.dots));
  canvas.height = Math.max(1, Math.round(sight.height * sight.dots));
  return canvas;
}

/** Sets the surface up for frame coordinates, cut to the view. */
export function enter(
  surface: CanvasRenderingContext2D,
  { camera, view, shape, dots }: Sight,
): void {
  const scale = camera.scale * dots;
  surface.setTransform(scale, 0, 0, scale, -camera.x * scale, -camera.y * scale);
  surface.beginPath();
  traceView(surface, view, shape);
  surface.clip();
}

export function drawFrame(
  surface: CanvasRenderingContext2D,
  { picture, filter, camera, fine, view, room }: Sight,
): void {
  surface.save();
  if (room?.colour) {
    surface.fillStyle = room.colour;
    for (const bar of rimOf(view, room.crop)) {
      surface.fillRect(bar.x, bar.y, bar.width, bar.height);
    }
  }
  if (room) {
    const { x, y, width, height } = room.crop;
    surface.beginPath();
    surface.rect(x, y, width, height);
    surface.clip();
  }
  surface.imageSmoothingEnabled = camera.scale < SHARP_FROM;
  // Through a filter it is seen for a moment only, while a slider moves.
  surface.imageSmoothingQuality = fine && !filter && camera.scale < 1 ? 'high' : 'low';
  surface.filter = filter || 'none';
  surface.drawImage(picture, 0, 0);
  surface.restore();
}

/** What lies above, in runs of the same blending: a multiplying run must multiply as a whole. */
export function sheetsAbove(sight: Sight, marks: readonly Mark[], scene: PaintScene): Sheet[] {
  const sheets: Sheet[] = [];
  for (const mark of marks) {
    const blend = kindOf(mark).blend === 'multiply' ? 'multiply' : 'source-over';
    let sheet = sheets.at(-1);
    if (sheet?.blend !== blend) {
      sheet = { canvas: sheetOf(sight), blend };
      sheets.push(sheet);
      enter(context(sheet.canvas), sight);
    }
    paintMark(context(sheet.canvas), mark, sight.tools, scene);
  }
  return sheets;
}
