import type { ShotDocument } from '../document/document';
import { bottom, inflate, right, type Rect } from '../geometry/rect';
import type { HideArea } from '../marks/contract';
import { kindOf, type Mark } from '../marks/registry';
import { maskOf, touchedBox, widened, type Mask } from '../raster/mask';
import { turnReach } from '../document/turn';

/** A Hide mark with every pixel of the view that it hides. */
export interface Hidden {
  mark: Mark;
  area: HideArea;
  mask: Mask;
}

interface Of {
  marks: readonly Mark[];
  view: ShotDocument['view'];
  /** Marks under a hand, which hide nothing of others: they will be gone from over them. */
  moving?: ReadonlySet<string>;
}

/**
 * The hidden areas, the lowest first, but not those that lie wholly under others: they are neither
 * filled nor painted, so that many over each other cost hardly more than one.
 */
export function hiddenOf({ marks, view: { crop, turn }, moving }: Of): Hidden[] {
  const reach = turnReach(turn);
  const hidden: Hidden[] = [];
  const covers: Touched[] = [];
  for (const mark of marks.toReversed()) {
    const area = mark.off ? null : kindOf(mark).hide?.(mark);
    const box = area && touchedBox(area.outline, inflate(crop, reach));
    if (!area || !box) continue;
    const touched = { outline: area.outline, box };
    if (covers.some((cover) => liesUnder(touched, cover))) continue;
    const mask = knownMask(mark, area, crop, reach);
    if (!mask) continue;
    hidden.push({ mark, area, mask });
    if (!moving?.has(mark.id)) covers.push(touched);
  }
  return hidden.reverse();
}

interface Touched {
  outline: HideArea['outline'];
  box: Rect;
}

/** True when every shown pixel of an area is also one of another, as far as their boxes tell. */
function liesUnder({ outline, box }: Touched, cover: Touched): boolean {
  if (cover.outline.area === 'free') return false;
  if (cover.outline.area === 'oval') {
    return outline.area === 'oval' && sameRect(outline, cover.outline);
  }
  return (
    box.x >= cover.box.x &&
    box.y >= cover.box.y &&
    right(box) <= right(cover.box) &&
    bottom(box) <= bottom(cover.box)
  );
}

const sameRect = (a: Rect, b: Rect): boolean =>
  a.x === b.x && a.y === b.y && a.width === b.width && a.height === b.height;

/** Masks of marks that did not change are not rasterised at every repaint. */
const masks = new WeakMap<Mark, { view: Rect; reach: number; mask: Mask | null }>();

function knownMask(mark: Mark, { outline }: HideArea, view: Rect, reach: number): Mask | null {
  const known = masks.get(mark);
  if (known?.view === view && known.reach === reach) return known.mask;
  const mask = widened(maskOf(outline, inflate(view, reach)), reach, view);
  masks.set(mark, { view, reach, mask });
  return mask;
}
