import type { Frame } from '@/core/stitch/frame';
import { Joiner, type Added } from '@/core/stitch/joiner';
import { HEIGHT, WIDTH } from './scrolled';

/** Of pictures of that page. */
export const joiner = (waits = false) => new Joiner({ width: WIDTH, height: HEIGHT }, { waits });

/** Adds frames one after the other. */
export const addAll = (to: Joiner, frames: readonly Frame[]): Added[] =>
  frames.map((f) => to.add(f));

/** What is had, where it is one piece. */
export const one = (to: Joiner): Frame => {
  const [only, ...more] = to.joined();
  if (!only || more.length > 0) throw new Error(`There are ${more.length + 1} pieces.`);
  return only;
};
