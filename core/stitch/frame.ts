import type { Size } from '../geometry/size';
import { wordsOf, type ReadablePixels } from '../raster/pixels';

/** A picture of what is scrolled: one number a pixel as in `wordsOf`, but signed, row-major. */
export interface Frame extends Size {
  words: Int32Array;
  /** Words are numbers of which so far apart ones count as the same; else only equal ones do. */
  within?: number;
}

/** Which way it is scrolled: down and up, or across. */
export type Axis = 'down' | 'across';

/** A frame of some pixels, turned so that what is scrolled across is scrolled down. */
export function frameOf(pixels: ReadablePixels, axis: Axis): Frame {
  const { buffer, byteOffset, length } = wordsOf(pixels);
  // Signed numbers are the fastest.
  const frame = {
    words: new Int32Array(buffer, byteOffset, length),
    width: pixels.width,
    height: pixels.height,
  };
  return axis === 'down' ? frame : transposed(frame);
}

/** Rows as columns. */
export function transposed({ words, width, height }: Frame): Frame {
  const turned = new Int32Array(words.length);
  for (let y = 0; y < height; y += 1) {
    for (let x = 0; x < width; x += 1) turned[x * height + y] = words[y * width + x] as number;
  }
  return { words: turned, width: height, height: width };
}

/** Equal to the pixel. */
export function sameFrame(a: Frame, b: Frame): boolean {
  if (a.width !== b.width || a.height !== b.height) return false;
  for (let at = 0; at < a.words.length; at += 1) if (a.words[at] !== b.words[at]) return false;
  return true;
}
