import { limits } from '../values/limits';
import type { Size } from '../geometry/size';
import { sameFrame, type Frame } from './frame';
import { brightnessOf, profiledShifts } from './brightness';
import { Motion, type Part } from './motion';
import { Piece, type Placed } from './piece';
import { rowKeys, votedShift, type RowKeys } from './rowVotes';

/** Where so many pieces hang together in no way, more of them are of no use: pictures that are shown one after the other. */
const MOST_PIECES = 12;
/** So much of what is scrolled may be new in a frame; beyond that it is not believed. */
const MOST_NEW = 0.7;
/** With less of what is drawn changed nothing was scrolled: something on it moves. */
const RESTLESS = 0.3;
/** … and of its rows, in so many. */
const RESTLESS_ROWS = 0.5;

/**
 * What became of a frame: the first of a piece; nothing new on it; the last one again, but for
 * something that has changed on it and stays so; laid where it belongs; nobody
 * knows yet where it belongs; not connected with what there is, so it begins a piece of its own;
 * more than a picture may hold, so it was left out.
 */
export type Added = 'first' | 'same' | 'renewed' | 'joined' | 'unclear' | 'apart' | 'full';

interface Match {
  from: Placed;
  shift: number;
  doings: Uint8Array;
}

export interface JoinerSettings {
  /** A frame that fits nowhere begins a piece only when it is seen again: it may be half painted. */
  waits: boolean;
  /** Of the joined picture. */
  most?: { side: number; pixels: number };
}

/**
 * Joins what is seen of something that is scrolled up and down, frame by frame. Frames are laid
 * where rows that each has once say they belong (`votedShift`), and only where nothing speaks
 * against it; what fits nowhere begins a piece of its own, and pieces become one when a frame
 * connects them.
 */
export class Joiner {
  readonly #size: Size;
  readonly #settings: Required<JoinerSettings>;
  readonly #motion: Motion;
  /** In the order in which they began. */
  readonly #pieces: Piece[] = [];
  #current: Piece | null = null;
  /** One that fits nowhere, or differs where nothing was scrolled, until it is seen again. */
  #waiting: Frame | null = null;
  #shift = 0;

  constructor({ width, height }: Size, { waits, most = limits }: JoinerSettings) {
    this.#size = { width, height };
    this.#settings = { waits, most };
    this.#motion = new Motion(width, height);
  }

  /** What is scrolled, as far as it is known. */
  get part(): Part {
    return this.#motion.part;
  }

  /** How far the last frame that was laid had moved up. */
  get shift(): number {
    return this.#shift;
  }

  /** How many frames each piece is made of, and how large it is. */
  get pieces(): ({ frames: number } & Size)[] {
    const { width } = this.#size;
    return this.#pieces.map(({ frames, height }) => ({ frames, width, height }));
  }

  /**
   * @param frame of the size that was said; its pixels are kept, not copied
   * @throws RangeError where it has another size
   */
  add(frame: Frame): Added {
    const { width, height } = this.#size;
    if (frame.width !== width || frame.height !== height)
      throw new RangeError(`A frame of ${width} × ${height} was expected.`);
    const { last } = this.#current ?? {};
    if (last && sameFrame(last.frame, frame)) return this.#settled('same');
    const keys = rowKeys(frame);
    if (!this.#current) return this.#begin(frame, keys, 'first');
    const found = this.#match(this.#current.ends, frame, keys);
    if (found) return this.#place(this.#current, found, frame, keys);
    for (const piece of this.#pieces) {
      const other = piece === this.#current ? null : this.#match(piece.ends, frame, keys);
      if (other) return this.#place(piece, other, frame, keys);
    }
    const isSeenAgain = this.#waiting !== null && sameFrame(this.#waiting, frame);
    this.#waiting = frame;
    if (last && this.#isRestless(last.frame, frame)) {
      if (!isSeenAgain) return 'same';
      this.#current.renew({ ...last, frame, keys }, this.#motion.part, this.#motion.standing());
      return this.#settled('renewed');
    }
    if (this.#settings.waits && !isSeenAgain) return 'unclear';
    if (this.#pieces.length === MOST_PIECES) return this.#settled('full');
    return this.#begin(frame, keys, 'apart');
  }

  #settled(added: Added): Added {
    this.#waiting = null;
    return added;
  }

  #begin(frame: Frame, keys: RowKeys, added: Added): Added {
    this.#current = new Piece({ frame, keys, offset: 0 });
    this.#pieces.push(this.#current);
    return this.#settled(added);
  }

  /** Which of some frames another one fits to, and how. */
  #match(ends: readonly Placed[], frame: Frame, keys: RowKeys): Match | null {
    for (const from of ends) {
      const shift = votedShift(from.keys, keys, (asked) =>
        this.#motion.bearsOut(from.frame, frame, asked),
      );
      const doings = shift === null ? null : this.#doings(from.frame, frame, shift);
      if (shift !== null && doings) return { from, shift, doings };
    }
    return this.#matchByBrightness(ends, frame);
  }

  /** The same where colours are coarser than pixels. */
  #matchByBrightness(ends: readonly Placed[], frame: Frame): Match | null {
    const now = brightnessOf(frame);
    if (!now) return null;
    for (const from of ends) {
      const before = brightnessOf(from.frame);
      if (!before) continue;
      const [shift, another] = profiledShifts(before, now)
        .map((voted) => voted.shift)
        .filter((asked) => this.#motion.bearsOut(before.frame, now.frame, asked));
      if (shift === undefined || another !== undefined) continue;
      const doings = this.#doings(before.frame, now.frame, shift);
      if (doings) return { from, shift, doings };
    }
    return null;
  }

  /** What to do with each run of a frame that fits by this shift; null where it does not. */
  #doings(before: Frame, now: Frame, shift: number): Uint8Array | null {
    const { top, bottom } = this.#motion.part;
    if (Math.abs(shift) > MOST_NEW * (bottom - top)) return null;
    return this.#motion.look(before, now, shift);
  }

  #place(piece: Piece, { from, shift, doings }: Match, frame: Frame, keys: RowKeys): Added {
    const placed = { frame, keys, offset: from.offset + shift };
    const height = piece.heightWith(placed.offset);
    const { side, pixels } = this.#settings.most;
    if (height > side || height * frame.width > pixels) return this.#settled('full');
    piece.place(from, placed, this.#motion.part, doings);
    this.#current = piece;
    this.#shift = shift;
    this.#mend(piece, placed);
    return this.#settled('joined');
  }

  /** Takes pieces in that the frame which was just laid connects with its own. */
  #mend(piece: Piece, { frame, keys, offset }: Placed): void {
    for (const other of this.#pieces.filter((one) => one !== piece)) {
      const found = this.#match(other.ends, frame, keys);
      if (!found) continue;
      piece.takeIn(other, offset - (found.from.offset + found.shift));
      this.#pieces.splice(this.#pieces.indexOf(other), 1);
    }
  }

  /**
   * Most of what is drawn there is still in its place, and what is not lies somewhere by itself: it
   * was not scrolled. A list of lines that are alike but for a number changes little, but everywhere.
   */
  #isRestless(before: Frame, now: Frame): boolean {
    const { top, bottom, left, right } = this.#motion.part;
    let [changed, drawn, changedRows, drawnRows] = [0, 0, 0, 0];
    for (let y = top; y < bottom; y += 1) {
      let [changedHere, drawnHere] = [0, 0];
      for (let x = left + 1; x < right; x += 1) {
        const at = y * now.width + x;
        const word = before.words[at];
        if (word === before.words[at - 1]) continue;
        drawnHere += 1;
        if (word !== now.words[at]) changedHere += 1;
      }
      drawn += drawnHere;
      changed += changedHere;
      if (drawnHere > 0) drawnRows += 1;
      if (changedHere > 0) changedRows += 1;
    }
    return changed < RESTLESS * drawn && changedRows < RESTLESS_ROWS * drawnRows;
  }

  /** Every `by`th pixel of every piece, as far as they are laid: at most so many rows of each. */
  reduced(by: number, most: number): Frame[] {
    return this.#pieces.map((piece) => piece.reduced(this.#motion.part, by, most));
  }

  /** Every piece, what stays put on it once; frames that were never scrolled are as they came. */
  joined(): Frame[] {
    return this.#pieces.map((piece) => piece.joined(this.#motion.part));
  }
}
