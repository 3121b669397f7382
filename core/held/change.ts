/** Words that are the same, one after the other, are worth a run from so many on. */
const LEAST_RUN = 6;
/** The highest bits of a head say what follows; without them, as many words as it counts. */
const REPEATED = 0x8000_0000;
const MOVED = 0x4000_0000;
/** A part that is packed: where it begins, and its head. */
const HEAD = 2;

/**
 * True where `length` words from `at` on are the same as those of `b` from `bAt` on. Where the code
 * runs there may be a faster way than JavaScript’s.
 */
export type Same = (
  a: Uint32Array,
  at: number,
  b: Uint32Array,
  bAt: number,
  length: number,
) => boolean;

/** In JavaScript alone. */
export const same: Same = (a, at, b, bAt, length) => {
  for (let i = 0; i < length; i += 1) if (a[at + i] !== b[bAt + i]) return false;
  return true;
};

/** A picture that is followed: how many words a row has, where `after` begins in it. */
interface Lines {
  row: number;
  from: number;
  same: Same;
}

/**
 * The most words that a change may need: each row for itself, of single words with a run here and there.
 * @param length words that are compared
 */
export const mostPacked = (length: number, row: number): number =>
  length + Math.ceil(length / row) * HEAD + 8;

/**
 * Packs what is different, row by row: where it begins, and what was there. A row that was scrolled
 * is still there, elsewhere; then it is enough to say where.
 * @param before all words, as they were
 * @param after words of whole rows, from `from` on, as they are now
 * @param to room for `mostPacked(after.length, row)` words
 * @returns how many of them were used; none where nothing is different
 */
export function packChange(
  before: Uint32Array,
  after: Uint32Array,
  lines: Lines,
  to: Uint32Array,
): number {
  const spans = spansOf(before, after, lines);
  const moved = movedBy(before, after, lines, spans);
  let out = 0;
  for (let i = 0; i < spans.length; i += 2) {
    // What is put back first may not be where something else is taken from afterwards.
    const at = moved > 0 ? spans.length - 2 - i : i;
    const [start = 0, end = 0] = [spans[at], spans[at + 1]];
    const source = start - moved;
    if (moved !== 0 && isThere(before, start, end, after, source - lines.from, lines.same)) {
      to[out] = start;
      to[out + 1] = MOVED + (end - start);
      to[out + 2] = source;
      out += HEAD + 1;
    } else out = packPart(before, start, end, to, out);
  }
  return out;
}

/** Of each row that differs, the first word that does and the one behind the last. */
function spansOf(before: Uint32Array, after: Uint32Array, { row, from, same }: Lines): Uint32Array {
  const spans: number[] = [];
  const { length } = after;
  for (let start = 0; start < length; start += row) {
    let end = Math.min(length, start + row);
    if (same(before, from + start, after, start, end - start)) continue;
    let first = start;
    while (before[from + first] === after[first]) first += 1;
    while (before[from + end - 1] === after[end - 1]) end -= 1;
    spans.push(from + first, from + end);
  }
  return Uint32Array.from(spans);
}

/** True where the words from `start` to `end` of `before` stand in `after` from `at` on. */
function isThere(
  before: Uint32Array,
  start: number,
  end: number,
  after: Uint32Array,
  at: number,
  same: Same,
): boolean {
  const length = end - start;
  return at >= 0 && at + length <= after.length && same(before, start, after, at, length);
}

/** So many rows are looked for, and so far, in rows. */
const ASKED = 7;
const FURTHEST = 600;

/**
 * How far what is different was scrolled, as some of its rows tell: words, more than 0 where it went
 * up; 0 where they do not agree.
 */
function movedBy(
  before: Uint32Array,
  after: Uint32Array,
  { row, from, same }: Lines,
  spans: Uint32Array,
): number {
  const votes = new Map<number, number>();
  const rows = spans.length / 2;
  if (rows < ASKED) return 0;
  for (let asked = 1; asked <= ASKED; asked += 1) {
    const at = Math.floor((rows * asked) / (ASKED + 1)) * 2;
    const [start = 0, end = 0] = [spans[at], spans[at + 1]];
    const found: number[] = [];
    // What stands in several places tells nothing.
    for (let d = 1; d <= FURTHEST && found.length < 2; d += 1)
      for (const by of [d * row, -d * row])
        if (isThere(before, start, end, after, start - by - from, same)) found.push(by);
    const [by] = found;
    if (by !== undefined && found.length === 1) votes.set(by, (votes.get(by) ?? 0) + 1);
  }
  const [best] = [...votes].sort(([, a], [, b]) => b - a);
  return best && best[1] > 1 ? best[0] : 0;
}

/** One part that differs, as runs and as single words. */
function packPart(
  words: Uint32Array,
  start: number,
  end: number,
  to: Uint32Array,
  at: number,
): number {
  let out = at;
  let single = start;
  let i = start;
  while (i < end) {
    const word = words[i] ?? 0;
    let next = i + 1;
    while (next < end && words[next] === word) next += 1;
    if (next - i >= LEAST_RUN) {
      out = packSingles(words, single, i, to, out);
      to[out] = i;
      to[out + 1] = REPEATED + (next - i);
      to[out + 2] = word;
      out += HEAD + 1;
      single = next;
    }
    i = next;
  }
  return packSingles(words, single, end, to, out);
}

function packSingles(
  words: Uint32Array,
  start: number,
  end: number,
  to: Uint32Array,
  at: number,
): number {
  if (start === end) return at;
  to[at] = start;
  to[at + 1] = end - start;
  let out = at + HEAD;
  for (let i = start; i < end; i += 1, out += 1) to[out] = words[i] ?? 0;
  return out;
}

/**
 * Puts back what a change has replaced.
 * @param words all of them, as they were after it; as before it afterwards
 */
export function undoChange(packed: Uint32Array, words: Uint32Array): void {
  let read = 0;
  while (read < packed.length) {
    const start = packed[read] ?? 0;
    const head = packed[read + 1] ?? 0;
    const count = head & (MOVED - 1);
    const end = start + count;
    if (count === 0 || end > words.length) throw new RangeError('That was not packed by us.');
    read += HEAD;
    const word = packed[read] ?? 0;
    if (head >= REPEATED) {
      words.fill(word, start, end);
      read += 1;
    } else if (head >= MOVED) {
      words.copyWithin(start, word, word + count);
      read += 1;
    } else for (let i = start; i < end; i += 1, read += 1) words[i] = packed[read] ?? 0;
  }
}
