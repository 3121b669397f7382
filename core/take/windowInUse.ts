import type { Point } from '../geometry/point';
import { windowsAt, type PlacedWindow } from '../region/windowChoice';

interface Seen<W> {
  /** From back to front, those that are shown. */
  windows: readonly W[];
  focused: number | null;
  pointer: Point | null;
}

/**
 * The window in use: the one with the keyboard or the one under the pointer, as set; where the pointer
 * is over none, the one with the keyboard.
 */
export function windowInUse<W extends PlacedWindow>(
  { windows, focused, pointer }: Seen<W>,
  inUseIs: 'focused' | 'pointer',
): W | undefined {
  const under = pointer ? windowsAt(windows, pointer)[0] : undefined;
  const front = windows.find(({ id }) => id === focused);
  return inUseIs === 'pointer' ? (under ?? front) : front;
}
