/** So much brighter or darker, of 255, is seen as another. */
const TOLD_APART = 12;
/** Something has changed where so many of the small picture's pixels are others. */
const LEAST = 0.0015;

/** How many pixels of two grey pictures of the same size differ: 0–1. */
export function changedShare(before: Uint8Array, now: Uint8Array): number {
  let changed = 0;
  for (let i = 0; i < now.length; i += 1)
    if (Math.abs((before[i] ?? 0) - (now[i] ?? 0)) > TOLD_APART) changed += 1;
  return changed / now.length;
}

/** Finds, picture by picture, where something happens on a film that was still before. */
export class Changes {
  #before: Uint8Array | null = null;
  #still = 0;
  #count = 0;
  readonly found: number[] = [];

  /**
   * @param quiet so many pictures without a change end one that goes on
   */
  constructor(private readonly quiet: number) {}

  /** @param grey the next picture, small: one byte a pixel, of the size of all others; it is kept */
  saw(grey: Uint8Array): void {
    const before = this.#before;
    this.#before = grey;
    const isOther = before !== null && changedShare(before, grey) >= LEAST;
    if (isOther) {
      if (this.#still >= this.quiet || this.found.length === 0) this.found.push(this.#count);
      this.#still = 0;
    } else this.#still += 1;
    this.#count += 1;
  }
}
