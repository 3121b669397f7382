import type { Point } from '@/core/geometry/point';
import { distance, midpoint } from '@/core/geometry/point';
import { pan, zoomAt, type Camera } from '../session/camera';

/** Touches this long after the pen was near are the palm's. */
const PALM = 600;

interface Touch {
  pointerId: number;
  pointerType: string;
}

/**
 * Two fingers pan and zoom while one draws; and while a pen is about, fingers do nothing, since they
 * belong to the hand that holds it.
 */
export class Touches {
  private readonly down = new Map<number, Point>();
  private penAt = -Infinity;

  /** @returns what the touch means: drawing, the beginning of a pinch, or nothing */
  press({ pointerId, pointerType }: Touch, at: Point, now: number): 'draw' | 'pinch' | 'palm' {
    if (pointerType === 'pen') this.penAt = now;
    if (pointerType !== 'touch') return 'draw';
    if (now - this.penAt < PALM) return 'palm';
    this.down.set(pointerId, at);
    return this.down.size === 1 ? 'draw' : 'pinch';
  }

  /** The pen moved, over the page or on it. */
  hover({ pointerType }: Touch, now: number): void {
    if (pointerType === 'pen') this.penAt = now;
  }

  /** @returns the camera after a pinch moved on; null when this touch is no part of one */
  move({ pointerId }: Touch, at: Point, camera: Camera): Camera | null {
    const before = this.down.get(pointerId);
    if (!before || this.down.size < 2) {
      if (before) this.down.set(pointerId, at);
      return null;
    }
    const [, other] = [...this.down].find(([id]) => id !== pointerId) ?? [];
    this.down.set(pointerId, at);
    if (!other) return null;
    const moved = pan(
      camera,
      midpoint(at, other).x - midpoint(before, other).x,
      midpoint(at, other).y - midpoint(before, other).y,
    );
    const factor = distance(at, other) / Math.max(1, distance(before, other));
    return zoomAt(moved, midpoint(at, other), factor);
  }

  /** @returns true when it ended a pinch, so that the finger that is left draws nothing */
  release({ pointerId }: Touch): boolean {
    const pinched = this.down.size > 1;
    this.down.delete(pointerId);
    return pinched;
  }
}
