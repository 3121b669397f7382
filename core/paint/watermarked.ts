import { fillText, layoutText, type TextBlock } from '../drawing/textLayout';
import type { Surface } from '../drawing/surface';
import { alongOf, MARGIN, type Watermark } from '../finish/surround/watermark';
import type { Point } from '../geometry/point';
import type { Size } from '../geometry/size';
import type { PaintTools } from '../marks/contract';
import { scaleSmoothly, type RgbaPixels } from '../raster/pixels';
import type { Layers } from './layers';

/** What is written or shown over and over, in frame pixels. */
interface Stamp extends Size {
  draw: (at: Point) => void;
}

/** Tiled words rise by so much, so that they are told from what they lie on. */
const RISE = -Math.PI / 6;
/** From one tile to the next, in their own sizes. */
const APART = { across: 1.5, down: 3 } as const;

/** Paints a watermark over the whole; nothing where its picture is not what was said of it. */
export function paintWatermark(
  surface: Surface,
  mark: Watermark,
  whole: Size,
  held: (key: string) => RgbaPixels | null,
  tools: PaintTools,
  layers: Layers,
): void {
  const wanted = Math.max(1, Math.round((whole.width * mark.size) / 100));
  const stamp = mark.picture
    ? pictureStamp(surface, held(mark.picture), wanted, tools, layers)
    : wordsStamp(surface, mark, wanted, whole, tools);
  if (!stamp) return;
  surface.save();
  surface.globalAlpha = mark.opacity;
  if (mark.tiled) tile(surface, stamp, whole, mark.picture === undefined);
  else stamp.draw(placeOf(mark, stamp, whole));
  surface.restore();
}

function placeOf({ place }: Watermark, { width, height }: Size, whole: Size): Point {
  const margin = Math.round(Math.min(whole.width, whole.height) * MARGIN);
  const [across, down] = alongOf(place);
  const along = (free: number, by: number) =>
    Math.round(Math.min(margin, Math.max(0, free / 2)) * (1 - 2 * by) + free * by);
  return { x: along(whole.width - width, across), y: along(whole.height - height, down) };
}

function wordsStamp(
  surface: Surface,
  { text, face, colour }: Watermark,
  wanted: number,
  whole: Size,
  tools: PaintTools,
): Stamp | null {
  if (text.trim() === '') return null;
  const set = (size: number): TextBlock =>
    layoutText(tools.shaper, text, { face, weight: 700, size }, Infinity, { align: 'centre' });
  const trial = set(100);
  // As wide as wanted, yet never higher than the whole.
  const by = Math.min(wanted / Math.max(1, trial.width), whole.height / trial.height);
  const block = set(Math.max(1, 100 * by));
  return {
    width: block.width,
    height: block.height,
    draw: ({ x, y }) => fillText(surface, block, x, y, colour),
  };
}

function pictureStamp(
  surface: Surface,
  pixels: RgbaPixels | null,
  wanted: number,
  tools: PaintTools,
  layers: Layers,
): Stamp | null {
  if (!pixels) return null;
  const size = { width: wanted, height: Math.max(1, (pixels.height * wanted) / pixels.width) };
  const device = (v: number) => Math.max(1, Math.round(v * layers.scale));
  const image = tools.bitmap(scaleSmoothly(pixels, device(size.width), device(size.height)));
  return { ...size, draw: ({ x, y }) => layers.put(surface, image, Math.round(x), Math.round(y)) };
}

/** All over the whole, every other row half a step on; words rise. */
function tile(surface: Surface, stamp: Stamp, whole: Size, rises: boolean): void {
  const reach = Math.hypot(whole.width, whole.height) / 2;
  const step = {
    x: Math.max(8, stamp.width * APART.across),
    y: Math.max(8, stamp.height * (rises ? APART.down : APART.across)),
  };
  surface.beginPath();
  surface.rect(0, 0, whole.width, whole.height);
  surface.clip();
  surface.translate(Math.round(whole.width / 2), Math.round(whole.height / 2));
  if (rises) surface.rotate(RISE);
  const [rows, columns] = [Math.ceil(reach / step.y), Math.ceil(reach / step.x) + 1];
  for (let j = -rows; j <= rows; j += 1) {
    for (let i = -columns; i <= columns; i += 1) {
      const shift = j % 2 === 0 ? 0 : step.x / 2;
      stamp.draw({
        x: i * step.x + shift - stamp.width / 2,
        y: j * step.y - stamp.height / 2,
      });
    }
  }
}
