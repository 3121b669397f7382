import type { Rect } from '../geometry/rect';
import type { Size } from '../geometry/size';
import type { ReadablePixels, RgbaPixels } from '../raster/pixels';
import { withMargins } from './area';
import { brightnessOf, profiledShifts } from './brightness';
import { frameOf, transposed, type Axis, type Frame } from './frame';
import { Joiner, type Added, type JoinerSettings } from './joiner';
import { Motion, type Part } from './motion';
import { rowKeys, votedShifts, type Voted } from './rowVotes';

const axes: readonly Axis[] = ['down', 'across'];

interface Track {
  axis: Axis;
  joiner: Joiner;
}

/** How far it is. */
export interface Progress {
  /** Which way it is scrolled; null until it was. */
  axis: Axis | null;
  /** How far what is drawn moved by the last scroll that was understood, pixels. */
  shift: number;
  /** What is scrolled, in pixels of a frame. */
  part: Rect;
  /** The pieces in the order in which they began: more than one where there is a gap. */
  pieces: { frames: number; size: Size }[];
}

/** Joins what is seen of something that is scrolled; which way comes out by itself. */
export class LongPage {
  #tracks: readonly Track[];

  /** @param size of every frame, pixels */
  constructor(size: Size, settings: JoinerSettings) {
    const turned = { width: size.height, height: size.width };
    this.#tracks = axes.map((axis) => ({
      axis,
      joiner: new Joiner(axis === 'down' ? size : turned, settings),
    }));
  }

  /**
   * @param pixels RGBA, row-major, width × height × 4; they are kept, not copied
   * @throws RangeError where they have another size
   */
  add(pixels: ReadablePixels): Added {
    const added = this.#tracks.map(({ axis, joiner }) => joiner.add(frameOf(pixels, axis)));
    const found = added.findIndex((what) => what === 'joined' || what === 'full');
    if (found < 0) return added[0] as Added;
    this.#tracks = this.#tracks.slice(found, found + 1);
    return added[found] as Added;
  }

  get #track(): Track {
    return this.#tracks[0] as Track;
  }

  get progress(): Progress {
    const { axis, joiner } = this.#track;
    return {
      axis: this.#tracks.length > 1 ? null : axis,
      shift: joiner.shift,
      part: placeOf(joiner.part, axis),
      pieces: joiner.pieces.map(({ frames, ...size }) => ({
        frames,
        size: axis === 'down' ? size : { width: size.height, height: size.width },
      })),
    };
  }

  /**
   * Every `by`th pixel of every piece as far as it is had, to be looked at.
   * @param most so many pixels of its length, where it grows
   */
  reduced(by: number, most: number): RgbaPixels[] {
    return this.#turnedBack(this.#track.joiner.reduced(by, most));
  }

  /** Every piece as one picture: RGBA, row-major; transparent where nothing was ever seen. */
  joined(): RgbaPixels[] {
    return this.#turnedBack(this.#track.joiner.joined());
  }

  #turnedBack(frames: readonly Frame[]): RgbaPixels[] {
    const { axis } = this.#track;
    return frames.map((frame) => pixelsOf(axis === 'down' ? frame : transposed(frame)));
  }
}

const pixelsOf = ({ words, width, height }: Frame): RgbaPixels => ({
  data: new Uint8ClampedArray(words.buffer as ArrayBuffer, words.byteOffset, 4 * width * height),
  width,
  height,
});

const placeOf = ({ top, bottom, left, right }: Part, axis: Axis): Rect =>
  axis === 'down'
    ? { x: left, y: top, width: right - left, height: bottom - top }
    : { x: top, y: left, width: bottom - top, height: right - left };

/** So many shifts are tried where it is looked for what is scrolled. */
const TRIED = 4;

/**
 * The part of a picture that was scrolled from one to the next, and how far. Elsewhere on it other
 * things may move, such as a smaller picture of the same screen: what most is borne out by counts.
 * @param before RGBA, row-major, as is `now`, which has the same size
 * @returns null where nothing was, or it cannot be told
 */
export function scrolledPart(
  before: ReadablePixels,
  now: ReadablePixels,
): { part: Rect; axis: Axis; shift: number } | null {
  for (const axis of axes) {
    const [first, second] = [frameOf(before, axis), frameOf(now, axis)];
    const voted = votedShifts(rowKeys(first), rowKeys(second), TRIED);
    const found = mostBorneOut(voted, first, second) ?? byBrightness(first, second);
    if (!found) continue;
    const { shift, motion } = found;
    return { part: withMargins(now, placeOf(motion.seen, axis)), axis, shift };
  }
  return null;
}

const mostBorneOut = (voted: readonly Voted[], first: Frame, second: Frame) =>
  voted
    .map(({ shift }) => ({ shift, motion: new Motion(first.width, first.height) }))
    .filter(({ shift, motion }) => motion.look(first, second, shift) !== null)
    .sort((a, b) => b.motion.borneOut - a.motion.borneOut)[0];

function byBrightness(first: Frame, second: Frame) {
  const [before, now] = [brightnessOf(first), brightnessOf(second)];
  if (!before || !now) return undefined;
  return mostBorneOut(profiledShifts(before, now), before.frame, now.frame);
}
