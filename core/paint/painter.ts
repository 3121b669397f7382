import type { ShotDocument } from '../document/document';
import type { PaintTools } from '../marks/contract';
import { kindOf, type Mark } from '../marks/registry';
import { traceView } from '../document/viewShape';
import { paintMark } from './paintMark';
import { cutPixels, type RgbaPixels } from '../raster/pixels';
import type { Rect } from '../geometry/rect';
import type { PaintedPart } from './parts';
import { adjustedFrame, adjustView, drawAdjusted } from './adjusted';
import { PaintScene, type Sources } from './scene';
import type { Surface } from '../drawing/surface';
import { sheetView, withRoom } from './room';
import { paintSurrounded } from './surrounded';
import { layoutOfShot, surroundedOf } from './whole';

/** A Hide mark that is switched off hides all the same in what leaves, until a person agreed. */
const asItLeaves = (mark: Mark): Mark =>
  mark.off && 'area' in mark && !mark.uncovered ? { ...mark, off: undefined } : mark;

/**
 * Adjusts the picture of an opaque view in place, where the picture is to be adjusted, so that it
 * need not be drawn and read for that.
 * @param pixels RGBA, row-major, as large as the view
 * @returns what is left to be painted on it
 */
export function adjustShown(document: ShotDocument, pixels: RgbaPixels): ShotDocument {
  const { view, finish } = document;
  if (finish?.adjust?.on !== 'picture') return document;
  adjustView({ marks: document.marks.map(asItLeaves), view }, finish.adjust, pixels);
  const { adjust: _, ...rest } = finish;
  return { ...document, finish: rest };
}

/**
 * Paints a shot as it leaves: the view of the frame with all marks on it, and what is around it.
 * @param surface as large as the whole, empty
 * @param drawFrame draws the frame as it is turned, at least its view, in the view's coordinates
 */
export function paintShot(
  surface: Surface,
  shot: ShotDocument,
  tools: PaintTools,
  drawBare: (surface: Surface) => void,
): void {
  const drawFrame = withRoom(shot.view, drawBare);
  const document = { ...shot, view: sheetView(shot.view) };
  const layout = layoutOfShot(document, tools.shaper);
  const surround = document.finish?.surround;
  if (!layout || !surround) {
    paintPicture(surface, document, tools, drawFrame);
    return;
  }
  const { width, height } = document.view.crop;
  const picture = tools.sheet(width, height);
  paintPicture(picture.surface, document, tools, drawFrame);
  paintSurrounded(
    surface,
    {
      ...surroundedOf(document, layout, surround),
      draw: (to) => to.drawImage(picture.image, 0, 0),
    },
    tools,
  );
}

/** The marks of a shot on which nothing lies but what hides; null for every other. */
function hidesAlone({ marks }: ShotDocument): Mark[] | null {
  const all = marks.map(asItLeaves);
  return all.some((mark) => mark.halo || !kindOf(mark).hide) ? null : all;
}

interface Hides {
  marks: readonly Mark[];
  document: ShotDocument;
  readFrame: (this: void, at: Rect) => RgbaPixels;
  tools: PaintTools;
}

/** @param pixels a part of the view */
function hide(pixels: RgbaPixels, part: Rect, { document, ...of }: Hides): void {
  const { view, pictures } = document;
  // Its own for each: by this function fillings are known again.
  const drawFrame = () => undefined;
  new PaintScene({ ...of, view, pictures, drawFrame }).layHidden(pixels, part);
}

/** Reads from pixels that are a part of the frame. */
const readFrom =
  (pixels: RgbaPixels, part: Rect) =>
  (at: Rect): RgbaPixels =>
    cutPixels(pixels, { ...at, x: at.x - part.x, y: at.y - part.y });

/**
 * A part of a shot on which nothing lies but what hides, as it leaves: worked out from pixels alone,
 * the same as painted.
 * @param given what of the frame is read for it: `needs`
 * @returns null where something else lies on it
 */
export function hiddenPart(
  given: RgbaPixels,
  { part, needs, document }: PaintedPart,
  tools: PaintTools,
): RgbaPixels | null {
  const marks = hidesAlone(document);
  if (!marks) return null;
  const readFrame = readFrom(given, needs);
  const painted = readFrame(part);
  hide(painted, part, { marks, document, readFrame, tools });
  return painted;
}

/**
 * Hides in place what is hidden of a picture on which nothing else lies: the same as painted.
 * @param pixels RGBA, row-major, as large as the view, opaque
 * @returns false where something else lies on it, and nothing was done
 */
export function hideShown(pixels: RgbaPixels, document: ShotDocument, tools: PaintTools): boolean {
  const marks = hidesAlone(document);
  if (!marks) return false;
  const { crop } = document.view;
  hide(pixels, crop, { marks, document, readFrame: readFrom(pixels, crop), tools });
  return true;
}

/** Paints the view of the frame with all marks on it, on an empty surface as large as the view. */
function paintPicture(
  surface: Surface,
  document: ShotDocument,
  tools: PaintTools,
  drawFrame: (surface: Surface) => void,
): void {
  const { view, pictures, finish } = document;
  const { crop, shape } = view;
  const adjust = finish?.adjust;
  const of = { marks: document.marks.map(asItLeaves), view, tools, pictures };
  surface.save();
  if (adjust?.on === 'all') {
    drawAdjusted(surface, of, adjust, (sheet) => paintView(sheet, { ...of, drawFrame }));
  } else {
    const draw = adjust ? adjustedFrame(of, adjust, drawFrame) : drawFrame;
    paintView(surface, { ...of, drawFrame: draw });
  }
  if (shape) {
    // One antialiased cut at the end; clipping to the shape would cut every mark's edge anew.
    surface.globalCompositeOperation = 'destination-in';
    surface.fillStyle = '#000000';
    surface.translate(-crop.x, -crop.y);
    surface.beginPath();
    traceView(surface, crop, shape);
    surface.fill();
  }
  surface.restore();
}

/** The view of a frame with what lies on it, on a surface as large. */
function paintView(surface: Surface, sources: Sources): void {
  const { marks, view, tools, drawFrame } = sources;
  const { crop } = view;
  const scene = new PaintScene(sources);
  surface.save();
  surface.translate(-crop.x, -crop.y);
  surface.beginPath();
  surface.rect(crop.x, crop.y, crop.width, crop.height);
  surface.clip();
  drawFrame(surface);
  scene.drawHidden(surface);
  // What hides below everything else is drawn already.
  const first = marks.findIndex((mark) => mark.halo || !kindOf(mark).hide);
  for (const mark of first < 0 ? [] : marks.slice(first)) paintMark(surface, mark, tools, scene);
  surface.restore();
}
