import type { Size } from '../geometry/size';

/**
 * How large a film is written. Films pack colours two by two, so their sides are even; moving
 * pictures may be odd.
 * @param percent of the film's own size
 */
export function writtenSize({ width, height }: Size, percent: number, even: boolean): Size {
  const scaled = (side: number): number => {
    const exact = Math.max(1, Math.round((side * percent) / 100));
    return even ? Math.max(2, exact - (exact % 2)) : exact;
  };
  return { width: scaled(width), height: scaled(height) };
}
