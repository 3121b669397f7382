import type { Frame } from './frame';

/** The width of the strips whose rows are known again, pixels; narrow pictures have narrower ones. */
const STRIP = { wide: 64, narrow: 32 };
const NARROW = 640;
/** So many rows one below the other are one key. */
const ROWS = 3;
/** A shift is one with so many votes, and so many times those of the next. */
const LEAST_VOTES = 20;
const CLEAR = 3;
/** So many are asked about where none is clear. */
const ASKED = 4;
/** … and where only brightness can tell. */
export const MOST_SHIFTS = 6;

const TWICE = -2;
const NOWHERE = -1;

/** What a frame is known again by: a key for each strip and row, 0 where nothing is drawn. */
export interface RowKeys {
  keys: Int32Array;
  rows: number;
  /** Where each key stands that stands once. */
  once: Places;
}

/** Rows by key: open addressing with linear probing, since a frame has some thirty thousand keys. */
class Places {
  readonly #mask: number;
  readonly #keys: Int32Array;
  readonly #rows: Int32Array;

  constructor(most: number) {
    const size = 2 ** Math.ceil(Math.log2(Math.max(most, 1) * 2));
    this.#mask = size - 1;
    this.#keys = new Int32Array(size);
    this.#rows = new Int32Array(size);
  }

  #slot(key: number): number {
    let slot = Math.imul(key, 0x9e3779b1) & this.#mask;
    while (this.#keys[slot] !== 0 && this.#keys[slot] !== key) slot = (slot + 1) & this.#mask;
    return slot;
  }

  add(key: number, row: number): void {
    const slot = this.#slot(key);
    this.#rows[slot] = this.#keys[slot] === 0 ? row : TWICE;
    this.#keys[slot] = key;
  }

  /** The row of a key, `NOWHERE` or `TWICE`. */
  of(key: number): number {
    const slot = this.#slot(key);
    return this.#keys[slot] === 0 ? NOWHERE : (this.#rows[slot] as number);
  }
}

const mixed = (hash: number, word: number): number => Math.imul(hash ^ word, 0x01000193) | 0;

/** The keys of a frame: of its strips, of each two of them beside each other, and so on to all. */
export function rowKeys({ words, width, height }: Frame): RowKeys {
  const side = width < NARROW ? STRIP.narrow : STRIP.wide;
  const strips = Math.max(1, Math.floor(width / side));
  let level = Array.from({ length: strips }, (_, strip) => {
    const from = strip * side;
    const to = strip === strips - 1 ? width : from + side;
    const rows = new Int32Array(height);
    for (let y = 0; y < height; y += 1) rows[y] = hashOf(words, y * width + from, y * width + to);
    return rows;
  });
  const all = [...level];
  // Lines that are alike but for a number are known by all of them that stands beside each other.
  while (level.length > 1) {
    level = inPairs(level);
    all.push(...level);
  }
  const keys = new Int32Array(all.length * height);
  all.forEach((rows, strip) => keys.set(keysOf(rows, strip), strip * height));
  const once = new Places(keys.length);
  for (let at = 0; at < keys.length; at += 1) {
    const key = keys[at] as number;
    if (key !== 0) once.add(key, at % height);
  }
  return { keys, rows: height, once };
}

/** Rows of two strips that lie beside each other as those of one; a last odd one is left out. */
function inPairs(strips: readonly Int32Array[]): Int32Array<ArrayBuffer>[] {
  return Array.from({ length: Math.floor(strips.length / 2) }, (_, pair) => {
    const [left, right] = [strips[2 * pair] as Int32Array, strips[2 * pair + 1] as Int32Array];
    const rows = new Int32Array(left.length);
    for (let y = 0; y < rows.length; y += 1) {
      const [one, other] = [left[y] as number, right[y] as number];
      if (one !== 0 || other !== 0) rows[y] = mixed(mixed(0x811c9dc5, one), other) || 1;
    }
    return rows;
  });
}

/** A key for each row of a strip and those below it. */
function keysOf(rows: Int32Array, strip: number): Int32Array {
  const keys = new Int32Array(rows.length);
  for (let y = 0; y + ROWS <= rows.length; y += 1) {
    let key = mixed(0x811c9dc5, strip);
    let drawn = 0;
    for (let i = 0; i < ROWS; i += 1) {
      const row = rows[y + i] as number;
      drawn |= row;
      key = mixed(key, row);
    }
    // Zero is no key.
    if (drawn !== 0) keys[y] = key || 1;
  }
  return keys;
}

/** A hash of some pixels (FNV-1a by words); 0 where all are of one colour. */
function hashOf(words: Int32Array, from: number, to: number): number {
  const first = words[from] as number;
  let hash = 0x811c9dc5;
  let same = true;
  for (let at = from; at < to; at += 1) {
    const word = words[at] as number;
    if (word !== first) same = false;
    hash = Math.imul(hash ^ word ^ (word >>> 15), 0x01000193);
  }
  return same ? 0 : hash || 1;
}

/** A shift, and how many keys voted for it. */
export interface Voted {
  shift: number;
  votes: number;
}

/**
 * How far what is drawn may have moved up from one frame to the next of the same size, pixels; less
 * than 0 where it moved down. What each frame has once votes for where it went; what stayed in its
 * place has no vote.
 * @returns those with the most votes, at most so many
 */
export function votedShifts(before: RowKeys, now: RowKeys, most: number): Voted[] {
  const { rows } = now;
  const votes = new Int32Array(2 * rows + 1);
  for (let at = 0; at < now.keys.length; at += 1) {
    const key = now.keys[at] as number;
    if (key === 0 || before.keys[at] === key) continue;
    const row = at % rows;
    const was = before.once.of(key);
    if (was < 0 || now.once.of(key) !== row) continue;
    const shift = was - row + rows;
    votes[shift] = (votes[shift] as number) + 1;
  }
  const voted: Voted[] = [];
  votes.forEach((count, at) => {
    if (count >= LEAST_VOTES) voted.push({ shift: at - rows, votes: count });
  });
  return voted.sort((a, b) => b.votes - a.votes).slice(0, most);
}

/**
 * The one shift that is voted for; null where too little was seen again, or it fits several.
 * @param isBorneOut asked of those that are not clear by their votes alone
 */
export function votedShift(
  before: RowKeys,
  now: RowKeys,
  isBorneOut: (shift: number) => boolean,
): number | null {
  const voted = votedShifts(before, now, ASKED);
  const [best, second] = voted;
  if (!best) return null;
  if (best.votes >= CLEAR * (second?.votes ?? 0)) return best.shift;
  const left = voted.filter(({ shift }) => isBorneOut(shift));
  return left.length === 1 && left[0] === best ? best.shift : null;
}
