import type { Point } from '../geometry/point';

/** How far a window lay from where it lay at first, at a moment of a recording, s. */
export interface Followed extends Point {
  at: number;
}

/** From which picture on it lies how far away. */
export interface FollowStep extends Point {
  /** The number of a picture. */
  from: number;
}

/**
 * Where a window lies on the pictures of a film.
 * @param followed what was noted, in order; whatever came out of order is left
 * @param times of the pictures, s, ascending
 * @param scale pixels of the film for one of where it was noted
 */
export function followSteps(
  followed: readonly Followed[],
  times: readonly number[],
  scale: Point = { x: 1, y: 1 },
): FollowStep[] {
  const steps: FollowStep[] = [];
  let next = 0;
  let now: Point = { x: 0, y: 0 };
  times.forEach((time, from) => {
    for (let one = followed[next]; one && one.at <= time; one = followed[next]) {
      now = { x: Math.round(one.x * scale.x), y: Math.round(one.y * scale.y) };
      next += 1;
    }
    const { x, y } = steps.at(-1) ?? { x: 0, y: 0 };
    if (now.x !== x || now.y !== y) steps.push({ from, ...now });
  });
  return steps;
}
