import type { HeldPictures } from '@/core/contracts/pictures';
import type { Turn, ViewShape } from '@/core/contracts/shapes';
import type { Rect } from '@/core/geometry/rect';
import type { PaintTools } from '@/core/marks/contract';
import { kindOf, type Mark } from '@/core/marks/registry';
import { paintMark } from '@/core/paint/paintMark';
import { PaintScene } from '@/core/paint/scene';
import type { Surface } from '@/core/paint/surface';
import { traceView } from '@/core/shot/viewShape';
import type { Camera } from './camera';

/** What is to be seen. */
export interface Sight {
  picture: ImageBitmap;
  /** Draws it; the same function for the same picture. */
  drawFrame: (this: void, surface: Surface) => void;
  marks: readonly Mark[];
  /** The part of the frame that is shown; nothing is painted outside. */
  view: Rect;
  /** Within the view only this is shown. */
  shape: ViewShape | undefined;
  turn: Turn | undefined;
  pictures: HeldPictures | undefined;
  camera: Camera;
  width: number;
  height: number;
  /** Device pixels for one pixel of the page. */
  dots: number;
  /** The one mark that is being changed, if any. */
  active: string | null;
  tools: PaintTools;
  /** Smooth scaling of the frame; rough while the sight still changes, which is much faster. */
  fine: boolean;
}

interface Sheet {
  canvas: HTMLCanvasElement;
  blend: GlobalCompositeOperation;
}

/** From this enlargement on, pixels are shown as squares. */
const SHARP_FROM = 2;

/**
 * Paints the editor's picture. Two sheets of the view's size hold what lies below and above the
 * mark being changed, so a pointer move repaints that one mark and not all of them.
 */
export class LivePaint {
  private below: HTMLCanvasElement | null = null;
  private above: Sheet[] = [];
  private last: Sight | null = null;

  /** Paints the sight onto `target`, the live marks in place of their stored selves. */
  paint(target: CanvasRenderingContext2D, sight: Sight, live: readonly Mark[]): void {
    const scene = sceneOf(sight, live);
    this.prepare(sight, scene);
    target.save();
    target.setTransform(1, 0, 0, 1, 0, 0);
    if (this.below) target.drawImage(this.below, 0, 0);
    target.restore();
    target.save();
    enter(target, sight);
    const tools = { ...sight.tools, live: true };
    for (const mark of live) paintMark(target, mark, tools, scene);
    target.restore();
    target.save();
    target.setTransform(1, 0, 0, 1, 0, 0);
    for (const sheet of this.above) {
      target.globalCompositeOperation = sheet.blend;
      target.drawImage(sheet.canvas, 0, 0);
    }
    target.restore();
  }

  private prepare(sight: Sight, scene: PaintScene): void {
    const { last } = this;
    this.last = sight;
    if (last && this.below && sameLook(last, sight)) {
      if (last.marks === sight.marks) return;
      if (this.addOnTop(last.marks, sight, scene)) return;
    }
    const at = sight.active === null ? -1 : sight.marks.findIndex((m) => m.id === sight.active);
    const cut = at < 0 ? sight.marks.length : at;
    this.below = sheetOf(sight, this.below);
    const surface = context(this.below);
    enter(surface, sight);
    drawFrame(surface, sight);
    scene.drawHidden(surface, sight.active === null ? {} : { except: sight.active });
    for (const mark of sight.marks.slice(0, cut)) paintMark(surface, mark, sight.tools, scene);
    this.above = sheetsAbove(sight, sight.marks.slice(cut + 1), scene);
  }

  /** When marks were only added, paints just these onto the sheet that is there. */
  private addOnTop(before: readonly Mark[], sight: Sight, scene: PaintScene): boolean {
    if (sight.active !== null || !this.below || sight.marks.length <= before.length) return false;
    if (before.some((mark, i) => sight.marks[i] !== mark)) return false;
    const added = sight.marks.slice(before.length);
    // What is hidden shows in everything that lies below it, and in other hidden areas.
    if (added.some((mark) => kindOf(mark).group === 'Hide')) return false;
    const surface = context(this.below);
    surface.save();
    enter(surface, sight);
    for (const mark of added) paintMark(surface, mark, sight.tools, scene);
    surface.restore();
    return true;
  }
}

/** The scene as it is seen: live marks in place of their stored selves. */
function sceneOf(sight: Sight, live: readonly Mark[]) {
  const { marks, view, shape, turn, pictures, drawFrame: draw, tools } = sight;
  const now = new Map(live.map((mark) => [mark.id, mark]));
  const known = new Set(marks.map(({ id }) => id));
  const shown = [
    ...marks.map((mark) => now.get(mark.id) ?? mark),
    ...live.filter(({ id }) => !known.has(id)),
  ];
  return new PaintScene({
    marks: shown,
    view: { crop: view, ...(shape && { shape }), ...(turn && { turn }) },
    pictures,
    drawFrame: draw,
    tools,
  });
}

function sameLook(a: Sight, b: Sight): boolean {
  return (
    a.picture === b.picture &&
    a.active === b.active &&
    a.view === b.view &&
    a.shape === b.shape &&
    a.turn === b.turn &&
    a.width === b.width &&
    a.height === b.height &&
    a.dots === b.dots &&
    a.fine === b.fine &&
    a.camera.x === b.camera.x &&
    a.camera.y === b.camera.y &&
    a.camera.scale === b.camera.scale
  );
}

function context(canvas: HTMLCanvasElement): CanvasRenderingContext2D {
  const surface = canvas.getContext('2d');
  if (!surface) throw new Error('This browser gives no canvas of that size.');
  return surface;
}

function sheetOf(sight: Sight, before: HTMLCanvasElement | null = null): HTMLCanvasElement {
  const canvas = before ?? document.createElement('canvas');
  canvas.width = Math.max(1, Math.round(sight.width * sight.dots));
  canvas.height = Math.max(1, Math.round(sight.height * sight.dots));
  return canvas;
}

/** Sets the surface up for frame coordinates, cut to the view. */
function enter(surface: CanvasRenderingContext2D, { camera, view, shape, dots }: Sight): void {
  const scale = camera.scale * dots;
  surface.setTransform(scale, 0, 0, scale, -camera.x * scale, -camera.y * scale);
  surface.beginPath();
  traceView(surface, view, shape);
  surface.clip();
}

function drawFrame(surface: CanvasRenderingContext2D, { picture, camera, fine }: Sight): void {
  surface.imageSmoothingEnabled = camera.scale < SHARP_FROM;
  surface.imageSmoothingQuality = fine && camera.scale < 1 ? 'high' : 'low';
  surface.drawImage(picture, 0, 0);
}

/** What lies above, in runs of the same blending: a multiplying run must multiply as a whole. */
function sheetsAbove(sight: Sight, marks: readonly Mark[], scene: PaintScene): Sheet[] {
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
