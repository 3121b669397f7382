import type { Point } from '@/core/geometry/point';
import type { StrokePoint } from '@/core/marks/contract';

/** The pointer goes down on the picture. */
export interface Press {
  /** Where, in pixels of the picture. */
  at: StrokePoint;
  /** Pixels of the screen for one of the picture. */
  scale: number;
  /** Shift: to what is selected already. */
  adds: boolean;
  /** Ctrl: a copy is moved. */
  copies: boolean;
}

/** The pointer has moved while down. */
export interface Moved {
  /** Every place it went through since, the last of them `at`; pixels of the picture. */
  points: readonly StrokePoint[];
  at: StrokePoint;
  /** The last place in pixels of the screen. */
  screen: Point;
  scale: number;
  /** Shift: the ratio, or the direction, is kept. */
  keep: boolean;
  /** Alt: nothing snaps. */
  free: boolean;
}

/**
 * What the pointer does between down and up; made by whatever is pressed on. While it goes on, what
 * it changes is live; only its end makes a step of undo.
 */
export interface Gesture {
  move(moved: Moved): void;
  /** The pointer goes up. @param scale pixels of the screen for one of the picture */
  end?(scale: number): void;
  /** Esc: as if it had never begun. What is live goes by itself. */
  abandon?(): void;
}

/** Pixels of the screen within which what is moved snaps. */
const SNAP = 6;

/** How far things snap, in pixels of the picture; 0 where they shall not. */
export const snapReach = ({ free, scale }: Moved): number => (free ? 0 : SNAP / scale);
