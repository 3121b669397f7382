import type { ShotDocument } from '../document/document';
import { isTurned } from '../document/turn';
import { inflate, intersection, outerPixels, overlap, union, type Rect } from '../geometry/rect';
import type { MarkTools } from '../marks/contract';
import { kindOf, markBounds, type Mark } from '../marks/registry';
import { touchedBox } from '../raster/mask';
import { HALO } from './haloSurface';

/** A part of a picture on which something lies, whole pixels of the frame. */
export interface PaintedPart {
  part: Rect;
  /** What of the frame is read for it. */
  needs: Rect;
  /** All that is painted for it, as a document. */
  document: ShotDocument;
  /** Whole pixels of `needs` of which nothing is seen, whatever they show. */
  hidden: Rect[];
  /** What lies on it may be the same whatever it shows: nothing there looks at the picture. */
  mayBeInk: boolean;
}

/** Where more of the view is painted than that, all of it may be. */
const MOST = 0.6;

const area = ({ width, height }: Rect): number => width * height;

/** Those that lie over each other made one. */
function apart(rects: readonly Rect[]): Rect[] {
  const done: Rect[] = [];
  for (const rect of rects) {
    const near = done.filter((other) => overlap(other, rect));
    if (near.length === 0) {
      done.push(rect);
      continue;
    }
    const rest = done.filter((other) => !near.includes(other));
    return apart([...rest, union([...near, rect]), ...rects.slice(rects.indexOf(rect) + 1)]);
  }
  return done;
}

/** The rectangle around another whose edges lie where a grid of so many pixels has its lines. */
function onGrid(rect: Rect, step: number): Rect {
  if (step === 1) return rect;
  const { x, y, width, height } = rect;
  const [left, top] = [Math.floor(x / step) * step, Math.floor(y / step) * step];
  return {
    ...{ x: left, y: top },
    width: Math.ceil((x + width) / step) * step - left,
    height: Math.ceil((y + height) / step) * step - top,
  };
}

/** Nothing is done to all of the view: it may be painted in parts. */
export const isInParts = ({ view, finish, marks }: ShotDocument): boolean =>
  !finish &&
  !view.room &&
  !view.shape &&
  !isTurned(view.turn) &&
  !marks.some((mark) => kindOf(mark).everywhere);

/** All that is hidden are boxes, of which each part tells. */
export const hidesBoxes = ({ marks }: Pick<ShotDocument, 'marks'>): boolean =>
  marks.every((mark) => (kindOf(mark).hide?.(mark).outline.area ?? 'box') === 'box');

/**
 * The parts of the view outside of which a shot leaves as its frame is; null where all of it must be
 * painted, or may as well be.
 * @param step of the grid from whose lines they begin, pixels; the view begins at one of them. Above
 *   1 a picture that may be painted in parts always is
 */
export function paintedParts(
  document: ShotDocument,
  tools: MarkTools,
  step = 1,
): PaintedPart[] | null {
  if (!isInParts(document)) return null;
  const { view, marks } = document;
  const own = (mark: Mark): Rect =>
    onGrid(outerPixels(inflate(markBounds(mark, tools), HALO + 1)), step);
  const seen = marks.flatMap((mark) => intersection(own(mark), view.crop) ?? []);
  const parts = apart(seen);
  const most = step === 1 ? MOST * area(view.crop) : Infinity;
  if (parts.reduce((sum, part) => sum + area(part), 0) > most) return null;
  return parts.map((part) => {
    const read = needsOf(part, marks, own, view.crop);
    const needs = intersection(onGrid(read, step), view.crop) ?? read;
    const painted = marks.filter((mark) => overlap(own(mark), needs));
    return {
      ...{ part, needs, document: { ...document, marks: painted } },
      hidden: painted.flatMap((mark) => hiddenBox(mark, needs) ?? []),
      mayBeInk: !painted.some(looksAtPicture),
    };
  });
}

function looksAtPicture(mark: Mark): boolean {
  const kind = kindOf(mark);
  return kind.hide !== undefined || kind.reach !== undefined || kind.reads !== undefined;
}

/** The pixels that a mark hides, where they are a box. */
function hiddenBox(mark: Mark, within: Rect): Rect | null {
  const { outline } = (mark.off ? null : kindOf(mark).hide?.(mark)) ?? {};
  return outline?.area === 'box' ? touchedBox(outline, within) : null;
}

/** What is read for a part: what marks show from elsewhere, and what is around all that is hidden there. */
function needsOf(part: Rect, marks: readonly Mark[], own: (mark: Mark) => Rect, crop: Rect): Rect {
  let needs = part;
  for (let before: Rect | null = null; before === null || area(before) < area(needs);) {
    before = needs;
    for (const mark of marks) {
      if (!overlap(own(mark), needs)) continue;
      const kind = kindOf(mark);
      const from = kind.reads?.(mark);
      const read = [inflate(own(mark), kind.reach ?? 0), ...(from ? [outerPixels(from)] : [])];
      needs = intersection(union([needs, ...read]), crop) ?? needs;
    }
  }
  return needs;
}
