import type { Frame } from './frame';
import type { Part } from './motion';
import type { RowKeys } from './rowVotes';
import { runsOf } from './runs';
import { BEST, IF_BARE, Strip } from './strip';

/** A frame whose place on the page is known. */
export interface Placed {
  frame: Frame;
  keys: RowKeys;
  /** How far down the page its first row lies, from the first frame's. */
  offset: number;
}

/** Rows of the bottom of what stays at the sides that must be alike for its colour to go on. */
const ALIKE = 8;

/** What hangs together of a page: the frames that have been laid on each other. */
export class Piece {
  /** The frames that reach furthest up and down, and the one that came last. */
  highest: Placed;
  lowest: Placed;
  last: Placed;
  frames = 1;
  readonly #strip: Strip;
  readonly #ifBare: Uint8Array;

  constructor(first: Placed) {
    const { width, height } = first.frame;
    this.#strip = new Strip(width);
    this.#ifBare = new Uint8Array(runsOf(width) * height).fill(IF_BARE);
    this.highest = this.lowest = this.last = first;
  }

  /** Those that another frame may fit to, each once. */
  get ends(): Placed[] {
    return [...new Set([this.last, this.lowest, this.highest])];
  }

  get height(): number {
    return this.heightWith(this.last.offset);
  }

  /** Its height once a frame lies there. */
  heightWith(offset: number): number {
    const top = Math.min(this.highest.offset, offset);
    return Math.max(this.lowest.offset, offset) - top + this.last.frame.height;
  }

  /**
   * Lays a frame on it.
   * @param from the one it fits to
   * @param part what is scrolled
   * @param doings what to do with each of its runs
   */
  place(from: Placed, placed: Placed, part: Part, doings: Uint8Array): void {
    // What is scrolled may have been known less well when that one was laid.
    this.#paint(from, part, this.#ifBare);
    this.#paint(placed, part, doings);
    this.#reach(placed);
    this.last = placed;
    this.frames += 1;
  }

  /** Lays the last frame anew: something on it was still to come when it was laid. */
  renew(now: Placed, part: Part, doings: Uint8Array): void {
    if (this.highest === this.last) this.highest = now;
    if (this.lowest === this.last) this.lowest = now;
    this.last = now;
    if (this.frames > 1) this.#paint(now, part, doings);
  }

  #paint({ frame, offset }: Placed, { top, bottom }: Part, doings: Uint8Array): void {
    const runs = runsOf(frame.width);
    const { words, width } = frame;
    for (let y = top; y < bottom; y += 1) {
      const well = 1 + Math.min(y - top, bottom - 1 - y, BEST - 1);
      const row = { words, from: y * width };
      this.#strip.paint(offset + y, row, { doings, first: y * runs }, well);
    }
  }

  #reach(placed: Placed): void {
    if (placed.offset < this.highest.offset) this.highest = placed;
    if (placed.offset > this.lowest.offset) this.lowest = placed;
  }

  /** Takes in another piece, whose page begins `by` further down than this one's. */
  takeIn(other: Piece, by: number): void {
    this.#strip.takeIn(other.#strip, by);
    for (const end of other.ends) this.#reach({ ...end, offset: end.offset + by });
    this.frames += other.frames;
  }

  /** A row of the whole, 0 the uppermost: what stays put once, where it belongs. */
  #rowAt(y: number, { top, bottom, left, right }: Part, bar: Int32Array): Int32Array {
    const { highest, lowest } = this;
    const { width } = highest.frame;
    const at = y + highest.offset;
    const fromHighest = rowOf(highest, at);
    const fromLowest = rowOf(lowest, at);
    if (fromHighest && at < highest.offset + top) return fromHighest;
    if (fromLowest && at >= lowest.offset + bottom) return fromLowest;
    const row = this.#strip.row(at).slice();
    const sides = fromHighest && at < highest.offset + bottom ? fromHighest : bar;
    row.set(sides.subarray(0, left), 0);
    row.set(sides.subarray(right, width), right);
    return row;
  }

  /** Every `by`th pixel of it, as far as it has been laid: at most so many rows, where it grows. */
  reduced(part: Part, by: number, most: number): Frame {
    const whole = this.highest.frame;
    const width = Math.ceil(whole.width / by);
    const from = this.#shownFrom(most);
    const height = Math.ceil(Math.min(this.height, most) / by);
    const words = new Int32Array(width * height);
    const bar = goingOn(whole, part);
    for (let y = 0; y < height; y += 1) {
      const at = from + y * by;
      const row =
        this.frames === 1
          ? whole.words.subarray(at * whole.width, (at + 1) * whole.width)
          : this.#rowAt(at, part, bar);
      for (let x = 0; x < width; x += 1) words[y * width + x] = row[x * by] as number;
    }
    return { words, width, height };
  }

  /** The first of so many rows among which the last frame lies. */
  #shownFrom(most: number): number {
    const top = this.last.offset - this.highest.offset;
    const end = Math.min(top + this.last.frame.height, this.height);
    return Math.max(0, Math.min(top, end - most));
  }

  /** All of it. */
  joined(part: Part): Frame {
    const { frame } = this.highest;
    const { width } = frame;
    const { height } = this;
    if (this.frames === 1) return frame;
    for (const end of [this.highest, this.lowest]) this.#paint(end, part, this.#ifBare);
    const words = new Int32Array(width * height);
    const bar = goingOn(frame, part);
    for (let y = 0; y < height; y += 1) words.set(this.#rowAt(y, part, bar), y * width);
    return { words, width, height };
  }
}

function rowOf({ frame, offset }: Placed, at: number): Int32Array | null {
  const y = at - offset;
  if (y < 0 || y >= frame.height) return null;
  return frame.words.subarray(y * frame.width, (y + 1) * frame.width);
}

/** How what stays at the sides goes on below its end: its ground, and nothing where it has none. */
function goingOn({ words, width }: Frame, { bottom }: Part): Int32Array {
  const row = new Int32Array(width);
  for (let x = 0; x < width; x += 1) {
    const word = words[(bottom - 1) * width + x] as number;
    let alike = true;
    for (let i = 2; i <= ALIKE && alike; i += 1) alike = words[(bottom - i) * width + x] === word;
    if (alike) row[x] = word;
  }
  return row;
}
