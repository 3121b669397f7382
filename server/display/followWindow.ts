import type { Point } from '@/core/geometry/point';
import { env } from '../base/env';
import { askMaybe, ownConnection } from './connection';

/** It is looked at so often, ms: more often than a picture is taken. */
const OFTEN = 30;

/** Where a window lies on the display from some moment on, ms since 1970. */
export interface WindowThere extends Point {
  when: number;
}

/**
 * Follows a window that is moved; one that is hidden or closed stays where it was.
 * @param window its number
 * @param heard where its corner lies: at first, and whenever that is elsewhere
 * @returns how to stop
 */
export async function followWindow(
  window: number,
  heard: (there: WindowThere) => void,
): Promise<() => void> {
  const { display } = env();
  if (display === null) return () => undefined;
  const { X, root } = await ownConnection(display);
  let last: Point | null = null;
  /** When it was looked at before, ms since 1970. */
  let looked: number | null = null;
  let isAsked = false;
  const look = async () => {
    if (isAsked) return;
    isAsked = true;
    const before = Date.now();
    const there = await askMaybe<{ destX: number; destY: number }>((done) =>
      X.TranslateCoordinates(window, root, 0, 0, done),
    ).catch(() => null);
    isAsked = false;
    if (!there) return;
    const { destX: x, destY: y } = there;
    // On average it has been there for half of the time since it was looked at before.
    const when = looked === null ? before : (looked + Date.now()) / 2;
    looked = before;
    if (last && x === last.x && y === last.y) return;
    last = { x, y };
    heard({ when, x, y });
  };
  const timer = setInterval(() => void look(), OFTEN);
  return () => {
    clearInterval(timer);
    if (!X.stream.destroyed) X.terminate();
  };
}
