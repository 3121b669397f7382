import { RUN, runsOf } from './runs';

/** Rows that are held together. */
const ROWS = 512;

/** What to do with a run: paint it where nothing is, */
export const IF_BARE = 0;
/** or where what is there was seen but once, and not further from an edge, */
export const IF_BETTER = 1;
/** or whatever is there: this was seen before in another place. */
export const CONFIRM = 2;
export type Doing = typeof IF_BARE | typeof IF_BETTER | typeof CONFIRM;

const TWICE = 255;
/** So far from an edge nothing lies over it that belongs to the edge, such as a shadow. */
export const BEST = 40;

/** So many steps of 255 a colour may differ by where an edge is near: that is no other content. */
const SLIGHT = 6;

/** Pixels, of which a row begins at `from`. */
interface Row {
  words: Int32Array;
  from: number;
}

interface Tile {
  words: Int32Array;
  /** For each run of a row: 0 where nothing is, `TWICE`, or how well it was seen the one time. */
  seen: Uint8Array;
}

/** A picture that grows up and down, held in tiles: only what was painted takes memory. */
export class Strip {
  readonly #tiles = new Map<number, Tile>();
  readonly #runs: number;

  constructor(readonly width: number) {
    this.#runs = runsOf(width);
  }

  #tile(number: number): Tile {
    let tile = this.#tiles.get(number);
    if (!tile) {
      tile = {
        words: new Int32Array(ROWS * this.width),
        seen: new Uint8Array(ROWS * this.#runs),
      };
      this.#tiles.set(number, tile);
    }
    return tile;
  }

  /**
   * Paints one row.
   * @param y any whole number
   * @param words pixels, of which the row begins at `from`
   * @param doings what to do with its runs, of which the first is at `first`
   * @param well how well it is seen, 1 to `BEST`: the further from an edge of what is scrolled, the
   *   less is there that lies over it or is cut
   */
  paint(
    y: number,
    { words, from }: Row,
    { doings, first }: { doings: Uint8Array; first: number },
    well: number,
  ): void {
    const number = Math.floor(y / ROWS);
    const tile = this.#tile(number);
    const row = y - number * ROWS;
    for (let run = 0; run < this.#runs; run += 1) {
      const mark = row * this.#runs + run;
      const doing = doings[first + run];
      const seen = tile.seen[mark] as number;
      if (seen > 0) {
        if (doing === IF_BARE || (doing === IF_BETTER && seen > well)) continue;
        // The end of a shadow that lies at an edge is the same from row to row, and so seems borne out.
        const there = { words: tile.words, from: row * this.width };
        if (well < BEST && seen > well && this.#isSlight({ words, from }, there, run)) continue;
      }
      // What comes later, and is borne out, counts: pictures load late.
      tile.seen[mark] = seen > 0 && doing === CONFIRM ? TWICE : well;
      this.#copy(words, from, tile.words, row * this.width, run);
    }
  }

  /** Whether a run of one row is nearly as that of another. */
  #isSlight(one: Row, other: Row, run: number): boolean {
    const end = Math.min((run + 1) * RUN, this.width);
    for (let x = run * RUN; x < end; x += 1) {
      const [a, b] = [one.words[one.from + x] as number, other.words[other.from + x] as number];
      if (a === b) continue;
      for (let by = 0; by < 24; by += 8)
        if (Math.abs(((a >> by) & 255) - ((b >> by) & 255)) > SLIGHT) return false;
    }
    return true;
  }

  #copy(words: Int32Array, from: number, into: Int32Array, to: number, run: number): void {
    const end = Math.min((run + 1) * RUN, this.width);
    for (let x = run * RUN; x < end; x += 1) into[to + x] = words[from + x] as number;
  }

  /** Takes over what another strip has, `by` further down, where nothing is here. */
  takeIn(other: Strip, by: number): void {
    for (const [number, { words, seen }] of other.#tiles) {
      for (let row = 0; row < ROWS; row += 1) {
        const y = number * ROWS + row + by;
        const tile = this.#tile(Math.floor(y / ROWS));
        const own = y - Math.floor(y / ROWS) * ROWS;
        for (let run = 0; run < this.#runs; run += 1) {
          const theirs = seen[row * this.#runs + run] as number;
          const mark = own * this.#runs + run;
          if (theirs === 0 || tile.seen[mark]) continue;
          tile.seen[mark] = theirs;
          this.#copy(words, row * this.width, tile.words, own * this.width, run);
        }
      }
    }
  }

  /** The pixels of a row; transparent where nothing was painted. */
  row(y: number): Int32Array {
    const number = Math.floor(y / ROWS);
    const tile = this.#tiles.get(number);
    const at = (y - number * ROWS) * this.width;
    return tile ? tile.words.subarray(at, at + this.width) : new Int32Array(this.width);
  }
}
