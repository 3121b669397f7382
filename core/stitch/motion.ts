import type { Frame } from './frame';
import { BAND, lyingOver } from './over';
import { isFlat, MOVED, RUN, runsBetween, runsOf, STAYED } from './runs';
import { CONFIRM, IF_BARE, IF_BETTER, type Doing } from './strip';

/** So many runs must be seen to have moved before it is believed. */
const LEAST_MOVED = 24;

/** So much may speak against it, for each that speaks for it. */
const AGAINST = 1 / 3;

/** A row stays where more of it than this does, while something else would have come. */
const MOST_OF_ROW = 0.5;

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
  /** How often something was seen in each column of runs to move, to stay, and to do neither. */
  readonly #moved: Uint32Array;
  readonly #stayed: Uint32Array;
  readonly #restless: Uint32Array;
  /** The first and last row in which something was seen to stay there. */
  readonly #stayedFrom: Int32Array;
  readonly #stayedTo: Int32Array;
  #over: Uint8Array | null = null;
  /** Between which rows something moved. */
  #rows = { from: Infinity, to: 0 };
  #part: Part;
  /** The columns of which it was seen that they move. */
  #seen = { left: 0, right: 0 };

  constructor(
    readonly width: number,
    readonly height: number,
  ) {
    this.#runs = runsOf(width);
    this.#always = new Uint8Array(this.#runs * height).fill(1);
    this.#moved = new Uint32Array(this.#runs);
    this.#stayed = new Uint32Array(this.#runs);
    this.#restless = new Uint32Array(this.#runs);
    this.#stayedFrom = new Int32Array(this.#runs).fill(height);
    this.#stayedTo = new Int32Array(this.#runs).fill(-1);
    this.#part = { top: 0, bottom: height, left: 0, right: width };
  }

  /** What is scrolled, as far as it is known; columns of which nothing is known count as scrolled. */
  get part(): Part {
    return this.#part;
  }

  /** How many runs of pixels have been seen to move. */
  get borneOut(): number {
    return this.#moved.reduce((sum, count) => sum + count, 0);
  }

  /** The part of it that was seen to move. */
  get seen(): Part {
    return { ...this.#part, ...this.#seen };
  }

  /**
   * Looks at two frames of which the second is moved up by `shift`.
   * @returns what to do with each run of the second; null where too much speaks against it, and
   *   then nothing is learned from them
   */
  look(before: Frame, now: Frame, shift: number): Uint8Array | null {
    const { did, place, isBorneOut } = this.#judge(before, now, shift);
    if (!isBorneOut) return null;
    this.#learn(now, did, place);
    this.#over = lyingOver(now, did, this.#over);
    return this.#doings(did, this.#over);
  }

  /** Whether two frames bear out that the second is moved up by `shift`; nothing is learned from them. */
  bearsOut(before: Frame, now: Frame, shift: number): boolean {
    return this.#judge(before, now, shift).isBorneOut;
  }

  /** What to do with each run of a frame that lies where the last one lay. */
  standing(): Uint8Array {
    return this.#doings(new Uint8Array(this.#runs * this.height), this.#over);
  }

  #judge(before: Frame, now: Frame, shift: number) {
    const did = runsBetween(before, now, shift);
    const place = this.#isKnown ? this.#runsOfPart : movedPlace(did, this.#runs);
    const { moved, neither, whole, broken } = this.#count(before, now, did, place, shift);
    const isBorneOut = moved >= LEAST_MOVED && neither <= AGAINST * moved && broken <= whole;
    return { did, place, isBorneOut };
  }

  get #isKnown(): boolean {
    return this.#seen.right > 0;
  }

  get #runsOfPart(): Place {
    const { top, bottom, left, right } = this.#part;
    return { top, bottom, from: Math.ceil(left / RUN), to: Math.ceil(right / RUN) };
  }

  /**
   * How many runs moved, and how many did neither, in a place; and in how many rows all that moved
   * did so, and in how many some did neither. Lines that are alike but for a number, laid over each
   * other wrongly, mostly fit, yet hardly a row of theirs does. What is of one colour bears nothing
   * out, and where it was or is, something may have come late.
   */
  #count(before: Frame, now: Frame, did: Uint8Array, place: Place, shift: number) {
    const { top, bottom, from, to } = place;
    const counts = { moved: 0, neither: 0, whole: 0, broken: 0 };
    for (let y = top; y < bottom; y += 1) {
      let [moved, neither] = [0, 0];
      for (let run = from; run < to; run += 1) {
        const what = did[y * this.#runs + run];
        if (what !== MOVED && what !== 0) continue;
        if (isFlat(now, run, y)) continue;
        if (what === MOVED) moved += 1;
        else if (!isFlat(before, run, y + shift)) neither += 1;
      }
      counts.moved += moved;
      counts.neither += neither;
      if (neither > 0) counts.broken += 1;
      else if (moved > 0) counts.whole += 1;
    }
    return counts;
  }

  #learn(now: Frame, did: Uint8Array, place: Place): void {
    const runs = this.#runs;
    for (let at = 0; at < did.length; at += 1)
      if (!((did[at] as number) & STAYED)) this.#always[at] = 0;
    const [first, last] = movedRows(did, runs, place);
    this.#rows = { from: Math.min(this.#rows.from, first), to: Math.max(this.#rows.to, last) };
    // Where nothing moves, above and below, nothing is said of the columns.
    for (let at = first * runs; at < (last + 1) * runs; at += 1) {
      const run = at % runs;
      const what = did[at];
      if (what === MOVED) this.#moved[run] = (this.#moved[run] as number) + 1;
      if (what === 0) this.#restless[run] = (this.#restless[run] as number) + 1;
      if (what !== STAYED) continue;
      this.#stayed[run] = (this.#stayed[run] as number) + 1;
      const y = (at - run) / runs;
      if (y < (this.#stayedFrom[run] as number)) this.#stayedFrom[run] = y;
      if (y > (this.#stayedTo[run] as number)) this.#stayedTo[run] = y;
    }
    this.#part = this.#partNow(now);
  }

  #partNow(now: Frame): Part {
    const bars = this.#bars();
    // Something else that moves, such as a picture of this very screen, is not scrolled with it.
    this.#restless.forEach((count, run) => {
      if (count > (this.#moved[run] as number)) bars[run] = (bars[run] as number) + count;
    });
    const [first, end] = widest(this.#moved, bars);
    this.#seen = { left: first * RUN, right: Math.min(end * RUN, this.width) };
    const [from, to] = withUnknown([first, end], bars);
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
  #doings(did: Uint8Array, over: Uint8Array | null): Uint8Array {
    const doings = new Uint8Array(did.length);
    for (let y = 0, at = 0; y < this.height; y += 1) {
      const blocks = Math.floor(y / BAND) * this.#runs;
      const stays = this.#staysMostly(did.subarray(at, at + this.#runs));
      for (let run = 0; run < this.#runs; run += 1, at += 1) {
        const what = did[at] as number;
        const isOver = stays || over?.[blocks + run];
        const doing: Doing = isOver ? IF_BARE : what & MOVED ? CONFIRM : IF_BETTER;
        doings[at] = doing;
      }
    }
    return doings;
  }

  /** Most of a row stays put. On screens of fractional scale the words of a head differ a little. */
  #staysMostly(row: Uint8Array): boolean {
    const { from, to } = this.#runsOfPart;
    let stayed = 0;
    for (let run = from; run < to; run += 1) if (row[run] === STAYED) stayed += 1;
    return stayed > MOST_OF_ROW * (to - from);
  }
}

/** Some rows, and some columns of runs; the last are not in it. */
interface Place {
  top: number;
  bottom: number;
  from: number;
  to: number;
}

/** The columns of which more moved than did neither, and the rows in which something moved there. */
function movedPlace(did: Uint8Array, runs: number): Place {
  const [moved, neither] = [new Uint32Array(runs), new Uint32Array(runs)];
  for (let at = 0; at < did.length; at += 1) {
    const counts = did[at] === MOVED ? moved : did[at] === 0 ? neither : null;
    if (counts) counts[at % runs] = (counts[at % runs] as number) + 1;
  }
  const [from, to] = widest(moved, neither);
  const all = { top: 0, bottom: did.length / runs, from, to };
  const [first, last] = movedRows(did, runs, all);
  return { ...all, top: first, bottom: last + 1 };
}

/** The first and the last row of a place in which something moved. */
function movedRows(did: Uint8Array, runs: number, place: Place): [first: number, last: number] {
  const moves = (y: number) =>
    did.subarray(y * runs + place.from, y * runs + place.to).includes(MOVED);
  let { top, bottom } = place;
  while (top < bottom - 1 && !moves(top)) top += 1;
  while (bottom > top + 1 && !moves(bottom - 1)) bottom -= 1;
  return [top, bottom - 1];
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
    if (sum <= 0) [begin, sum] = [run + 1, 0];
  }
  return [from, to];
}

/** Columns of which nothing is known belong to what is beside them and moves. */
function withUnknown(
  [first, end]: [from: number, to: number],
  bars: Uint32Array,
): [from: number, to: number] {
  const isFree = (run: number) => run >= 0 && run < bars.length && bars[run] === 0;
  let [from, to] = [first, end];
  while (isFree(from - 1)) from -= 1;
  while (isFree(to)) to += 1;
  return [from, to];
}
