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

/**
 * The parts of the view outside of which a shot leaves as its frame is; null where all of it must be
 * painted, or may as well be.
 */
export function paintedParts(document: ShotDocument, tools: MarkTools): PaintedPart[] | null {
  const { view, finish, marks } = document;
  if (finish || view.room || view.shape || isTurned(view.turn)) return null;
  if (marks.some((mark) => kindOf(mark).everywhere)) return null;
  const own = (mark: Mark): Rect => outerPixels(inflate(markBounds(mark, tools), HALO + 1));
  const seen = marks.flatMap((mark) => intersection(own(mark), view.crop) ?? []);
  const parts = apart(seen);
  if (parts.reduce((sum, part) => sum + area(part), 0) > MOST * area(view.crop)) return null;
  return parts.map((part) => {
    const needs = needsOf(part, marks, own, view.crop);
    const painted = marks.filter((mark) => overlap(own(mark), needs));
    return {
      ...{ part, needs, document: { ...document, marks: painted } },
      hidden: painted.flatMap((mark) => hiddenBox(mark, needs) ?? []),
    };
  });
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
