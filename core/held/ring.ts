import { mostPacked, packChange, undoChange, type Same } from './change';

/** A look of the screen, and since when it stood. */
export interface Moment<Facts> {
  /** Counts up. */
  id: number;
  /** ms. */
  since: number;
  /** When the next look replaced it; null for the one that still stands. */
  until: number | null;
  facts: Facts;
}

/** A look that stands no more: what it had where the next one differed. */
interface Past<Facts> extends Moment<Facts> {
  until: number;
  packed: Uint32Array;
}

const BYTES = 4;
/** What a moment costs beside its pixels, bytes: its facts, and the objects around it. */
const BESIDE = 4096;

/**
 * The last looks of a screen, all of one size: the newest as it is, each older one as what was
 * different, so that letting go of the oldest costs nothing. Pixels are words of 32 bits in whatever
 * layout they come. Not a pixel is lost.
 */
export class Ring<Facts> {
  readonly #row: number;
  readonly #same: Same;
  readonly #now: Uint32Array;
  /** Oldest first. */
  readonly #past: Past<Facts>[] = [];
  #newest: Moment<Facts> | null = null;
  #bytes: number;
  #scratch = new Uint32Array(0);

  #id: number;

  /**
   * @param words of a whole picture
   * @param row words of a row
   * @param id of its first moment
   */
  constructor(words: number, row: number, id: number, same: Same) {
    this.#row = row;
    this.#same = same;
    this.#now = new Uint32Array(words);
    this.#bytes = words * BYTES;
    this.#id = id;
  }

  /** Bytes held. */
  get bytes(): number {
    return this.#bytes;
  }

  /** When its oldest moment was over, ms; Infinity where it still stands, or there is none. */
  get oldestUntil(): number {
    return (this.#past[0] ?? this.#newest)?.until ?? Infinity;
  }

  /** Lets go of the oldest moment, though never of the newest. @returns false where there was none to let go */
  letGo(): boolean {
    const oldest = this.#past.shift();
    this.#bytes -= bytesOf(oldest);
    return oldest !== undefined;
  }

  /** Nothing comes to it any more: its newest moment was over at `at`, ms. */
  close(at: number): void {
    if (this.#newest) this.#newest.until = at;
  }

  /**
   * A look of the screen.
   * @param at ms
   * @param pixels all of them, or those of the rows from `from` on that may have changed; may be
   *   written over afterwards
   * @returns false where it looks as before: then the look that stands goes on
   */
  add(at: number, pixels: Uint32Array, facts: Facts, from = 0): boolean {
    const before = this.#newest;
    const fits = before ? from + pixels.length <= this.#now.length : this.#isWhole(pixels, from);
    if (!fits) throw new RangeError('That look has another size.');
    if (before) {
      const packed = this.#packed(pixels, from);
      if (packed.length === 0) return false;
      this.#past.push({ ...before, until: at, packed });
      this.#bytes += bytesOf(this.#past.at(-1));
    }
    this.#now.set(pixels, from);
    this.#newest = { id: this.#id, since: at, until: null, facts };
    this.#id += 1;
    return true;
  }

  /** Oldest first. */
  moments(): Moment<Facts>[] {
    const all: Moment<Facts>[] = [...this.#past, ...(this.#newest ? [this.#newest] : [])];
    return all.map(({ id, since, until, facts }) => ({ id, since, until, facts }));
  }

  /**
   * All moments, newest first, each with its pixels: one memory for all of them, written over with
   * the next.
   */
  *backwards(): Generator<Moment<Facts> & { pixels: Uint32Array }> {
    const newest = this.#newest;
    if (!newest) return;
    const pixels = this.#now.slice();
    yield { ...newest, pixels };
    for (const { packed, ...past } of this.#past.toReversed()) {
      undoChange(packed, pixels);
      yield { ...past, pixels };
    }
  }

  #isWhole = (pixels: Uint32Array, from: number): boolean =>
    from === 0 && pixels.length === this.#now.length;

  #packed(pixels: Uint32Array, from: number): Uint32Array {
    const row = this.#row;
    const most = mostPacked(pixels.length, row);
    if (this.#scratch.length < most) this.#scratch = new Uint32Array(most);
    return this.#scratch.slice(
      0,
      packChange(this.#now, pixels, { row, from, same: this.#same }, this.#scratch),
    );
  }
}

const bytesOf = (past: Past<unknown> | undefined): number =>
  past ? past.packed.length * BYTES + BESIDE : 0;
