import type { HeldPictures } from '@/core/values/heldPicture';
import type { Turn, ViewShape } from '@/core/document/viewSchema';
import type { Rect } from '@/core/geometry/rect';
import type { PaintTools } from '@/core/marks/contract';
import { inflate, outerPixels, overlap } from '@/core/geometry/rect';
import { HALO } from '@/core/paint/haloSurface';
import { kindOf, markBounds, type Mark } from '@/core/marks/registry';
import { changedRegion } from '@/core/paint/changed';
import { paintMark } from '@/core/paint/paintMark';
import { PaintScene } from '@/core/paint/scene';
import type { Surface } from '@/core/drawing/surface';
import { traceView } from '@/core/document/viewShape';
import type { Camera } from './camera';
import { changedAmong, MANY, movedAlike } from '../actions/together';

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
  /** The marks have not changed for a moment. */
  settled: boolean;
}

interface Sheet {
  canvas: HTMLCanvasElement;
  blend: GlobalCompositeOperation;
}

/** Many marks that move together: what is below them, and they themselves, painted once. */
interface Group {
  from: readonly Mark[];
  sight: Sight;
  base: HTMLCanvasElement;
  sheets: readonly Sheet[];
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
  /** What the sheets show. */
  private shown: Sight | null = null;
  private group: Group | null = null;

  /** Paints the sight onto `target`, the live marks in place of their stored selves. */
  paint(target: CanvasRenderingContext2D, sight: Sight, live: readonly Mark[]): void {
    if (this.below && this.shown && live.length === 0 && onlyMoved(this.shown, sight)) {
      this.paintMoved(target, this.shown, sight);
      return;
    }
    if (this.paintTogether(target, sight, live)) return;
    this.group = null;
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
    paintSheets(target, this.above);
  }

  /**
   * Many marks on their way, under the pointer or by keys: painted once and shifted, so that what
   * they hide or enlarge is as it was until they rest. False where that is not what happens.
   */
  private paintTogether(
    target: CanvasRenderingContext2D,
    sight: Sight,
    live: readonly Mark[],
  ): boolean {
    const moving = live.length > 0 ? live : this.nudged(sight);
    if (!moving || moving.length < MANY) return false;
    const known = this.group && sameLook(this.group.sight, sight) ? this.group : null;
    const by = known && movedAlike(known.from, moving, sight.tools);
    const group = by ? known : this.groupOf(sight, moving, live.length > 0);
    if (!group) return false;
    this.group = group;
    const { x, y } = by ?? movedAlike(group.from, moving, sight.tools) ?? { x: 0, y: 0 };
    const scale = sight.camera.scale * sight.dots;
    target.save();
    target.setTransform(1, 0, 0, 1, 0, 0);
    target.drawImage(group.base, 0, 0);
    target.restore();
    paintSheets(target, group.sheets, { e: x * scale, f: y * scale });
    return true;
  }

  /** The marks that keys moved since the sheets were painted; null where it is not only that. */
  private nudged(sight: Sight): readonly Mark[] | null {
    const from = this.group?.sight ?? this.shown;
    if (sight.settled || !from || !sameLook(from, sight)) return null;
    return changedAmong(from.marks, sight.marks);
  }

  /** @param live they are not among the marks of the sight, else they are as they were painted last */
  private groupOf(sight: Sight, moving: readonly Mark[], live: boolean): Group | null {
    const ids = new Set(moving.map((mark) => mark.id));
    const from = live ? moving : (this.shown?.marks ?? []).filter((mark) => ids.has(mark.id));
    if (!movedAlike(from, moving, sight.tools)) return null;
    const rest = sight.marks.filter((mark) => !ids.has(mark.id));
    const base = sheetOf(sight);
    const below = { ...sight, marks: rest };
    paintBelow(context(base), below, rest, sceneOf(below, []));
    // Two sheets, whatever lies over what: many would take longer to lay than marks to paint.
    const tints = (mark: Mark) => kindOf(mark).blend === 'multiply';
    const ordered = [...from.filter(tints), ...from.filter((mark) => !tints(mark))];
    const sheets = sheetsAbove(
      sight,
      ordered,
      sceneOf({ ...sight, marks: [...rest, ...from] }, []),
    );
    return { from, sight: live ? sight : (this.shown ?? sight), base, sheets };
  }

  /** While the camera moves, the sheets move with it; what comes into sight is painted at rest. */
  private paintMoved(target: CanvasRenderingContext2D, from: Sight, to: Sight): void {
    if (!this.below) return;
    target.save();
    enter(target, to);
    drawFrame(target, to);
    const k = to.camera.scale / from.camera.scale;
    const scale = to.camera.scale * to.dots;
    const place = {
      a: k,
      d: k,
      e: (from.camera.x - to.camera.x) * scale,
      f: (from.camera.y - to.camera.y) * scale,
    };
    target.setTransform(place);
    target.drawImage(this.below, 0, 0);
    target.restore();
    paintSheets(target, this.above, place);
  }

  private prepare(sight: Sight, scene: PaintScene): void {
    const { shown } = this;
    this.shown = sight;
    if (shown && this.below && sameLook(shown, sight)) {
      if (shown.marks === sight.marks) return;
      if (this.repaintChanged(shown.marks, sight, scene)) return;
    }
    const at = cutAt(sight);
    const cut = at < 0 ? sight.marks.length : at;
    this.below = sheetOf(sight, this.below);
    paintBelow(context(this.below), sight, sight.marks.slice(0, cut), scene);
    this.above = sheetsAbove(sight, sight.marks.slice(cut + 1), scene);
  }

  /** Repaints only where a few marks changed; false where that is not possible. */
  private repaintChanged(before: readonly Mark[], sight: Sight, scene: PaintScene): boolean {
    if (cutAt(sight) >= 0 || !this.below) return false;
    const region = changedRegion(before, sight.marks, sight.tools);
    if (!region) return false;
    if (region.width === 0) return true;
    const { camera, dots } = sight;
    const scale = camera.scale * dots;
    const surface = context(this.below);
    surface.save();
    surface.setTransform(1, 0, 0, 1, 0, 0);
    // Whole pixels of the screen, so that no seam is left.
    const device = outerPixels({
      x: (region.x - camera.x) * scale,
      y: (region.y - camera.y) * scale,
      width: region.width * scale,
      height: region.height * scale,
    });
    surface.beginPath();
    surface.rect(device.x, device.y, device.width, device.height);
    surface.clip();
    surface.clearRect(device.x, device.y, device.width, device.height);
    enter(surface, sight);
    drawFrame(surface, sight);
    const within = inflate(region, 1 / scale + 1);
    scene.drawHidden(surface, { within: outerPixels(within) });
    for (const mark of sight.marks) {
      const reached = overlap(inflate(markBounds(mark, sight.tools), HALO), within);
      if (reached || kindOf(mark).everywhere) paintMark(surface, mark, sight.tools, scene);
    }
    surface.restore();
    return true;
  }
}

/** The frame with what is hidden and some marks on it. */
function paintBelow(
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

function paintSheets(
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

/** Where the active mark lies among the others; −1 while it is not among them yet. */
const cutAt = ({ active, marks }: Sight): number =>
  active === null ? -1 : marks.findIndex((mark) => mark.id === active);

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
    moving: new Set([...now.keys(), ...(sight.active === null ? [] : [sight.active])]),
  });
}

function sameLook(a: Sight, b: Sight): boolean {
  return (
    a.picture === b.picture &&
    activeAmong(a) === activeAmong(b) &&
    a.view === b.view &&
    a.shape === b.shape &&
    a.turn === b.turn &&
    a.width === b.width &&
    a.height === b.height &&
    a.dots === b.dots &&
    a.fine === b.fine &&
    sameCamera(a, b)
  );
}

const sameCamera = ({ camera: a }: Sight, { camera: b }: Sight): boolean =>
  a.x === b.x && a.y === b.y && a.scale === b.scale;

const activeAmong = (sight: Sight): string | null => (cutAt(sight) < 0 ? null : sight.active);

/** True while the camera moves over what is otherwise the same sight. */
const onlyMoved = (from: Sight, to: Sight): boolean =>
  !to.fine &&
  !sameCamera(from, to) &&
  from.marks === to.marks &&
  sameLook({ ...from, fine: to.fine, camera: to.camera }, to);

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
