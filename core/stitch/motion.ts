import type { Frame } from './frame';
import { BAND, lyingOver } from './over';
import { MOVED, RUN, runsBetween, runsOf, STAYED } from './runs';
import { CONFIRM, IF_BARE, IF_BETTER, type Doing } from './strip';

/** So many runs must be seen to have moved before it is believed. */
const LEAST_MOVED = 24;

/** What stays put at a side is a bar when it reaches over so much of the rows that move. */
const BAR = 0.5;

/** The part that is scrolled, in pixels of a frame: from its first to before its last. */
export interface Part {
  top: number;
  bottom: number;
  left: number;
  right: number;
}

/**
 * What moves and what stays put where something is scrolled, as it comes out from frame to frame:
 * heads and feet, bars at the sides, and things that lie over it.
 */
export class Motion {
  readonly #runs: number;
  /** 1 for each run that has stayed in its place so far. */
  readonly #always: Uint8Array;
  /** How often something was seen in each column of runs to move, and to stay. */
  readonly #moved: Uint32Array;
  readonly #stayed: Uint32Array;
  /** The first and last row in which something was seen to stay there. */
  readonly #stayedFrom: Int32Array;
  readonly #stayedTo: Int32Array;
  #over: Uint8Array | null = null;
  /** Between which rows something moved. */
  #rows = { from: Infinity, to: 0 };
  #part: Part;

  constructor(
    readonly width: number,
    readonly height: number,
  ) {
    this.#runs = runsOf(width);
    this.#always = new Uint8Array(this.#runs * height).fill(1);
    this.#moved = new Uint32Array(this.#runs);
    this.#stayed = new Uint32Array(this.#runs);
    this.#stayedFrom = new Int32Array(this.#runs).fill(height);
    this.#stayedTo = new Int32Array(this.#runs).fill(-1);
    this.#part = { top: 0, bottom: height, left: 0, right: width };
  }

  /** What is scrolled, as far as it is known. */
  get part(): Part {
    return this.#part;
  }

  /**
   * Looks at two frames of which the second is moved up by `shift`.
   * @returns what to do with each run of the second; null where too much speaks against it, and
   *   then nothing is learned from them
   */
  look(before: Frame, now: Frame, shift: number): Uint8Array | null {
    const did = runsBetween(before, now, shift);
    const [moved, neither] = this.#count(did);
    if (moved < LEAST_MOVED || neither > moved) return null;
    this.#learn(now, did);
    this.#over = lyingOver(now, did, this.#over);
    return this.#doings(did, this.#over);
  }

  /** How many runs moved, and how many did neither, in the part that is scrolled. */
  #count(did: Uint8Array): [moved: number, neither: number] {
    const { top, bottom, left, right } = this.#part;
    let [moved, neither] = [0, 0];
    for (let y = top; y < bottom; y += 1) {
      for (let run = Math.ceil(left / RUN); run * RUN < right; run += 1) {
        const what = did[y * this.#runs + run];
        if (what === MOVED) moved += 1;
        else if (what === 0) neither += 1;
      }
    }
    return [moved, neither];
  }

  #learn(now: Frame, did: Uint8Array): void {
    const runs = this.#runs;
    let [first, last] = [did.length, 0];
    for (let at = 0; at < did.length; at += 1) {
      const what = did[at] as number;
      if (!(what & STAYED)) this.#always[at] = 0;
      if (what !== MOVED) continue;
      if (first > at) first = at;
      last = at;
    }
    // Where nothing moves, above and below, nothing is said of the columns.
    for (let at = first - (first % runs); at <= last; at += 1) {
      const run = at % runs;
      if (did[at] === MOVED) this.#moved[run] = (this.#moved[run] as number) + 1;
      if (did[at] !== STAYED) continue;
      const y = (at - run) / runs;
      this.#stayed[run] = (this.#stayed[run] as number) + 1;
      if (y < (this.#stayedFrom[run] as number)) this.#stayedFrom[run] = y;
      if (y > (this.#stayedTo[run] as number)) this.#stayedTo[run] = y;
    }
    this.#rows = {
      from: Math.min(this.#rows.from, Math.floor(first / runs)),
      to: Math.max(this.#rows.to, Math.floor(last / runs)),
    };
    this.#part = this.#partNow(now);
  }

  #partNow(now: Frame): Part {
    const [from, to] = widest(this.#moved, this.#bars());
    const stays = (y: number): boolean => {
      const row = this.#always.subarray(y * this.#runs + from, y * this.#runs + to);
      return !row.includes(0);
    };
    let top = 0;
    while (top < this.height && stays(top)) top += 1;
    let bottom = this.height;
    while (bottom > top && stays(bottom - 1)) bottom -= 1;
    const right = Math.min(to * RUN, this.width);
    const left = from * RUN;
    // What is blank at the end of a page is no foot.
    if (isBlank(now, { top: bottom, bottom: this.height, left, right })) bottom = this.height;
    return { top, bottom, left, right };
  }

  /** How often each column stayed, for those beside each other that are a bar at the side. */
  #bars(): Uint32Array {
    const bars = new Uint32Array(this.#runs);
    const stays = (run: number) => (this.#stayed[run] as number) > (this.#moved[run] as number);
    for (let from = 0; from < this.#runs; from += 1) {
      let to = from;
      let [top, bottom] = [this.height, 0];
      for (; to < this.#runs && stays(to); to += 1) {
        top = Math.min(top, this.#stayedFrom[to] as number);
        bottom = Math.max(bottom, this.#stayedTo[to] as number);
      }
      const { from: first, to: last } = this.#rows;
      if (bottom - top >= BAR * (last - first)) bars.set(this.#stayed.subarray(from, to), from);
      from = Math.max(from, to);
    }
    return bars;
  }

  /** What was seen before in another place is sure; what lies over it is only for where nothing is. */
  #doings(did: Uint8Array, over: Uint8Array): Uint8Array {
    const doings = new Uint8Array(did.length);
    for (let y = 0, at = 0; y < this.height; y += 1) {
      const blocks = Math.floor(y / BAND) * this.#runs;
      for (let run = 0; run < this.#runs; run += 1, at += 1) {
        const what = did[at] as number;
        const doing: Doing = over[blocks + run] ? IF_BARE : what & MOVED ? CONFIRM : IF_BETTER;
        doings[at] = doing;
      }
    }
    return doings;
  }
}

/** All of one colour. */
function isBlank({ words, width }: Frame, { top, bottom, left, right }: Part): boolean {
  const first = words[top * width + left];
  for (let y = top; y < bottom; y += 1)
    for (let x = left; x < right; x += 1) if (words[y * width + x] !== first) return false;
  return true;
}

/** The columns of which more moved than stayed, as one stretch: the largest sum. */
function widest(moved: Uint32Array, stayed: Uint32Array): [from: number, to: number] {
  let [from, to, best] = [0, moved.length, 0];
  let [begin, sum] = [0, 0];
  for (let run = 0; run < moved.length; run += 1) {
    sum += (moved[run] as number) - (stayed[run] as number);
    if (sum > best) [from, to, best] = [begin, run + 1, sum];
    if (sum < 0) [begin, sum] = [run + 1, 0];
  }
  // Columns of which nothing is known belong to what is beside them and moves.
  const isFree = (run: number) => run >= 0 && run < moved.length && stayed[run] === 0;
  while (isFree(from - 1)) from -= 1;
  while (isFree(to)) to += 1;
  return [from, to];
}
