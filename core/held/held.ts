import { same, type Same } from './change';
import { Ring, type Moment } from './ring';

/** How far the last look back goes, and how often a screen is looked at for it, ms. */
export const LOOK_BACK = { longest: 10_000, every: 200 } as const;

/** How much may be held. */
export interface Bounds {
  /** Bytes, with the look that stands now. */
  most: number;
  /** How far it goes back, ms. */
  longest: number;
}

/** A look of the screen. Looks are compared with the one before where their shapes are equal. */
export interface Look {
  /** Words of 32 bits in whatever layout they come; may be written over afterwards. */
  pixels: Uint32Array;
  /** Words of a row. */
  row: number;
  /** What says that two looks are laid out alike: size and layout. */
  shape: string;
  /** Where these are some rows alone: the place of their first word. The others are as before. */
  from?: number;
}

/** A moment with its pixels: of `shape`, and to be read before the next is asked for. */
export interface Shown<Facts> extends Moment<Facts> {
  pixels: Uint32Array;
  shape: string;
}

/** The last seconds of a screen in bounded memory, also where its size changes meanwhile. */
export class Held<Facts> {
  readonly #bounds: Bounds;
  readonly #same: Same;
  /** Oldest first; each of one shape. */
  #rings: { ring: Ring<Facts>; shape: string }[] = [];
  #next = 1;
  /** When something was last let go because there was no room for it, ms. */
  #shortened = -Infinity;

  /** @param equal how words are compared */
  constructor(bounds: Bounds, equal: Same = same) {
    this.#bounds = bounds;
    this.#same = equal;
  }

  /** Bytes held. */
  get bytes(): number {
    return this.#rings.reduce((sum, { ring }) => sum + ring.bytes, 0);
  }

  /** True where the bytes, not the time, said how far it goes back at `at`, ms. */
  isShortened(at: number): boolean {
    return at - this.#shortened < this.#bounds.longest;
  }

  /** @returns false where it looks as before: then the look that stands goes on */
  add(at: number, look: Look, facts: Facts): boolean {
    const last = this.#rings.at(-1);
    const fits = last?.shape === look.shape;
    const ring = fits
      ? last.ring
      : new Ring<Facts>(look.pixels.length, look.row, this.#next, this.#same);
    if (!fits) {
      last?.ring.close(at);
      this.#rings.push({ ring, shape: look.shape });
    }
    const isNew = ring.add(at, look.pixels, facts, look.from);
    if (isNew) this.#next += 1;
    this.forget(at);
    return isNew;
  }

  /** Lets go of what is too old at `at`, ms, and of what there is no room for. */
  forget(at: number): void {
    while ((this.#rings[0]?.ring.oldestUntil ?? Infinity) <= at - this.#bounds.longest)
      this.#letGo();
    while (this.bytes > this.#bounds.most && this.#letGo()) this.#shortened = at;
  }

  /** Oldest first. */
  moments(): Moment<Facts>[] {
    return this.#rings.flatMap(({ ring }) => ring.moments());
  }

  /** All moments, newest first. */
  *backwards(): Generator<Shown<Facts>> {
    for (const { ring, shape } of this.#rings.toReversed()) {
      for (const moment of ring.backwards()) yield { ...moment, shape };
    }
  }

  /** One moment; null where it was let go. Its pixels are the asker's. */
  find(id: number): Shown<Facts> | null {
    for (const moment of this.backwards()) if (moment.id === id) return moment;
    return null;
  }

  /** The oldest moment goes, and with the last of a shape its ring; the look that stands stays. */
  #letGo(): boolean {
    const [oldest] = this.#rings;
    if (oldest?.ring.letGo()) return true;
    if (this.#rings.length < 2) return false;
    this.#rings.shift();
    return true;
  }
}
