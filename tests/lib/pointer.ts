import type { StrokePoint } from '@/core/marks/contract';
import type { Moved, Press } from '@/features/mark/gestures/contract';

/** A press on the picture of Mark, one pixel of the screen for one of it. */
export const pressAt = (at: StrokePoint, more: Partial<Press> = {}): Press => ({
  ...{ at, scale: 1, adds: false, copies: false },
  ...more,
});

/** A move of the pointer to a place, straight. */
export const movedTo = (at: StrokePoint, more: Partial<Moved> = {}): Moved => ({
  ...{ points: [at], at, screen: at, scale: 1, keep: false, free: false },
  ...more,
});
