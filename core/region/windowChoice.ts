import { contains, intersection, type Rect } from '../geometry/rect';
import type { Point } from '../geometry/point';

/** A window on a stilled picture, in its pixels. */
export interface PlacedWindow {
  id: number;
  title: string;
  bounds: Rect;
  frameBounds?: Rect | undefined;
}

/** The pixels a window takes up, with or without its border, and a margin around it. */
export function windowPlace(
  window: PlacedWindow,
  { border, margin }: { border: boolean; margin: number },
): Rect {
  const r = border ? (window.frameBounds ?? window.bounds) : window.bounds;
  return {
    x: r.x - margin,
    y: r.y - margin,
    width: r.width + 2 * margin,
    height: r.height + 2 * margin,
  };
}

/** The part of a place that is in the picture; null when nothing is. */
export const visiblePart = (
  r: Rect,
  { width, height }: Pick<Rect, 'width' | 'height'>,
): Rect | null => intersection(r, { x: 0, y: 0, width, height });

/** The windows under a place, the front one first. */
export const windowsAt = <W extends PlacedWindow>(windows: readonly W[], at: Point): W[] =>
  windows.filter((w) => contains(w.frameBounds ?? w.bounds, at)).reverse();

/** The next window of a list, from the front backwards; after the last comes the first. */
export function stepWindow<W extends PlacedWindow>(
  windows: readonly W[],
  current: number | null,
  by: 1 | -1,
): W | undefined {
  const order = [...windows].reverse();
  const at = order.findIndex((w) => w.id === current);
  if (at < 0) return by > 0 ? order[0] : order.at(-1);
  return order[(at + by + order.length) % order.length];
}

/** The first window from the front whose title holds the letters, beginnings of words before middles. */
export function findWindow<W extends PlacedWindow>(
  windows: readonly W[],
  letters: string,
): W | undefined {
  const wanted = letters.toLowerCase();
  const order = [...windows].reverse();
  const starts = (w: W) =>
    w.title
      .toLowerCase()
      .split(/\s+/)
      .some((word) => word.startsWith(wanted));
  return (
    order.find((w) => w.title.toLowerCase().startsWith(wanted)) ??
    order.find(starts) ??
    order.find((w) => w.title.toLowerCase().includes(wanted))
  );
}
