import type { ReadablePixels } from '../raster/pixels';
import { differences, type Differences } from './differences';
import { shiftBetween, type Shift } from './shift';

/** How two pictures differ. */
export interface Comparison extends Differences {
  /** Where the upper left corner of the second lies on the first. */
  shift: Shift;
}

/** Compares two pictures, laid on each other as what they show asks for. */
export function compare(first: ReadablePixels, second: ReadablePixels): Comparison {
  const shift = shiftBetween(first, second);
  return { shift, ...differences(first, second, shift) };
}
