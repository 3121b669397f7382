import { contrast, parseHex, type Rgb } from '../colour/colour';
import type { Point } from '../geometry/point';
import { intersection, outerPixels, type Rect } from '../geometry/rect';
import type { PaintTools } from '../marks/contract';
import type { RgbaPixels } from '../raster/pixels';
import { kindOf, opacityOf, type Mark, type MarkName } from '../marks/registry';

const CELLS = 28;
/** So much of a mark may lie on worse ground. */
const SHARE = 0.2;

/** Kinds that can have a halo at all. */
export const canStandOut = (of: Mark | MarkName): boolean => kindOf(of).contrast !== undefined;

/** The contrast a mark needs. */
export const neededContrast = (mark: Mark): number => kindOf(mark).contrast?.least ?? 0;

/** What a mark brings along to stand on, and is then seen against. */
const ownGround = (mark: Mark): string | null => kindOf(mark).contrast?.ground?.(mark) ?? null;

/** What is seen of a colour that lets what is below shine through. */
function through(own: Rgb, below: Rgb, opacity: number): Rgb {
  const mix = (a: number, b: number) => a * opacity + b * (1 - opacity);
  return { r: mix(own.r, below.r), g: mix(own.g, below.g), b: mix(own.b, below.b) };
}

/** Whether a mark has a contrast with what is below it at all. */
export const hasContrast = (mark: Mark): boolean =>
  canStandOut(mark) && 'colour' in mark && parseHex(mark.colour) !== null;

/** The part of the view in which a mark's contrast is looked at; null where it is not seen. */
export const contrastArea = (mark: Mark, tools: PaintTools, view: Rect): Rect | null =>
  intersection(outerPixels(kindOf(mark).bounds(mark, tools)), view);

/**
 * The contrast (1–21) of a mark with pixels of what is painted below it: that of the worst fifth of
 * those it covers. Null when it has no colour of its own or touches nothing.
 * @param below RGBA, its top left corner at `at` in the frame
 */
export function contrastWith(
  mark: Mark,
  below: RgbaPixels,
  at: Point,
  tools: PaintTools,
): number | null {
  const own = 'colour' in mark ? parseHex(mark.colour) : null;
  if (!own || !canStandOut(mark)) return null;
  const plate = parseHex(ownGround(mark) ?? '');
  if (plate) return contrast(own, plate);
  const kind = kindOf(mark);
  const { data, width, height } = below;
  const found: number[] = [];
  const [dx, dy] = [Math.max(1, width / CELLS), Math.max(1, height / CELLS)];
  for (let y = dy / 2; y < height; y += dy) {
    for (let x = dx / 2; x < width; x += dx) {
      const [px, py] = [Math.floor(x), Math.floor(y)];
      const i = (py * width + px) * 4;
      if (!data[i + 3] || !kind.hit(mark, { x: at.x + px, y: at.y + py }, 1, tools)) continue;
      const there = { r: data[i] ?? 0, g: data[i + 1] ?? 0, b: data[i + 2] ?? 0 };
      found.push(contrast(through(own, there, opacityOf(mark)), there));
    }
  }
  found.sort((a, b) => a - b);
  return found[Math.floor(found.length * SHARE)] ?? null;
}

const LIGHT = '#FFFFFF';
const DARK = '#000000';

/** The mark with the halo that its contrast asks for, or without one where it stands out by itself. */
export function withHalo(mark: Mark, ratio: number | null): Mark {
  const { halo: _, ...bare } = mark;
  if (mark.standsOut === false || !canStandOut(mark)) return bare;
  if (ratio === null || ratio >= neededContrast(mark) || !('colour' in bare)) return bare;
  const own = parseHex(bare.colour);
  const white = { r: 255, g: 255, b: 255 };
  const black = { r: 0, g: 0, b: 0 };
  if (!own) return bare;
  return { ...bare, halo: contrast(own, white) >= contrast(own, black) ? LIGHT : DARK };
}
