import { bottom, right, type Rect } from '@/core/geometry/rect';

/** A box that the page or toolkit reported. */
export interface KnownBox extends Rect {
  /** Button, field, menu, panel or window; null for any other thing with a box. */
  kind: string | null;
}

export interface Score {
  /** Known buttons, fields, menus, panels, windows, and how many of them were found. */
  known: number;
  found: number;
  /** Boxes offered, and how many of them are the box of anything at all. */
  offered: number;
  right: number;
}

/** Sides may differ by this much. */
const WITHIN = 2;

const same = (a: Rect, b: Rect): boolean =>
  Math.abs(a.x - b.x) <= WITHIN &&
  Math.abs(a.y - b.y) <= WITHIN &&
  Math.abs(right(a) - right(b)) <= WITHIN &&
  Math.abs(bottom(a) - bottom(b)) <= WITHIN;

export function score(offered: readonly Rect[], boxes: readonly KnownBox[]): Score {
  const wanted = boxes.filter((b) => b.kind !== null);
  return {
    known: wanted.length,
    found: wanted.filter((b) => offered.some((o) => same(o, b))).length,
    offered: offered.length,
    right: offered.filter((o) => boxes.some((b) => same(o, b))).length,
  };
}

export const sum = (scores: readonly Score[]): Score =>
  scores.reduce((a, b) => ({
    known: a.known + b.known,
    found: a.found + b.found,
    offered: a.offered + b.offered,
    right: a.right + b.right,
  }));

/** What was missed and what was offered wrongly, for whoever improves the finder. */
export const misses = (offered: readonly Rect[], boxes: readonly KnownBox[]) => ({
  missed: boxes.filter((b) => b.kind !== null && !offered.some((o) => same(o, b))),
  wrong: offered.filter((o) => !boxes.some((b) => same(o, b))),
});
