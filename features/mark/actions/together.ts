import type { Point } from '@/core/geometry/point';
import { markBounds, type Mark } from '@/core/marks/registry';
import type { MarkTools } from '@/core/marks/contract';

/** From so many on, marks that move together are painted once and then shifted. */
export const MANY = 40;

/**
 * How far marks lie from where they were, if all of them moved alike and nothing else of them
 * changed that takes room; null otherwise. Both lists have the same marks in the same order.
 */
export function movedAlike(
  before: readonly Mark[],
  now: readonly Mark[],
  tools: MarkTools,
): Point | null {
  if (before.length !== now.length) return null;
  let by: Point | null = null;
  for (const [i, mark] of now.entries()) {
    const old = before[i];
    if (!old || old.id !== mark.id || old.kind !== mark.kind) return null;
    const [a, b] = [markBounds(old, tools), markBounds(mark, tools)];
    const moved = { x: b.x - a.x, y: b.y - a.y };
    by ??= moved;
    if (!near(moved.x, by.x) || !near(moved.y, by.y)) return null;
    if (!near(a.width, b.width) || !near(a.height, b.height)) return null;
  }
  return by;
}

/** Bounds are sums of what is stored to a hundredth. */
const near = (a: number, b: number): boolean => Math.abs(a - b) < 0.02;

/** The marks of `now` that are others than in `before`; null where not only that differs. */
export function changedAmong(before: readonly Mark[], now: readonly Mark[]): Mark[] | null {
  if (before.length !== now.length) return null;
  const changed: Mark[] = [];
  for (const [i, mark] of now.entries()) {
    if (before[i]?.id !== mark.id) return null;
    if (before[i] !== mark) changed.push(mark);
  }
  return changed;
}
