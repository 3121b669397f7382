import type { Frame } from './frame';

/** Pixels of a row that are judged together. */
export const RUN = 16;

/** What a run did from one frame to the next, as the sum of what is true of it. */
export const STAYED = 1;
export const MOVED = 2;
/** Where it was before is out of sight. */
export const UNKNOWN = 4;

export const runsOf = (width: number): number => Math.ceil(width / RUN);

/**
 * What each run of `now` did, if it is what `before` was, moved up by `shift` pixels.
 * @returns one for each run, row by row
 */
export function runsBetween(before: Frame, now: Frame, shift: number): Uint8Array {
  const { width, height, words, within = 0 } = now;
  // Hardly any frame has a tolerance, and equal numbers are told much faster.
  const isSame = (at: number, to: number, length: number): boolean =>
    isAlike(words, at, before.words, to, length) ||
    (within > 0 && isNear(now, at, before, to, length));
  const runs = runsOf(width);
  const did = new Uint8Array(runs * height);
  for (let y = 0; y < height; y += 1) {
    const from = y + shift;
    const isKnown = from >= 0 && from < height;
    for (let run = 0; run < runs; run += 1) {
      const x = run * RUN;
      const length = Math.min(RUN, width - x);
      const at = y * width + x;
      const to = from * width + x;
      let what = isSame(at, at, length) ? STAYED : 0;
      if (!isKnown) what |= UNKNOWN;
      else if (isSame(at, to, length)) what |= MOVED;
      did[y * runs + run] = what;
    }
  }
  return did;
}

function isAlike(a: Int32Array, at: number, b: Int32Array, to: number, length: number): boolean {
  for (let i = 0; i < length; i += 1) if (a[at + i] !== b[to + i]) return false;
  return true;
}

/** Alike but for so much. */
function isNear(now: Frame, at: number, before: Frame, to: number, length: number): boolean {
  const { words: a, within = 0 } = now;
  const b = before.words;
  for (let i = 0; i < length; i += 1) {
    const apart = (a[at + i] as number) - (b[to + i] as number);
    if (apart > within || -apart > within) return false;
  }
  return true;
}

/** All of a run is of one colour. */
export function isFlat(frame: Frame, run: number, y: number): boolean {
  const { words } = frame;
  const within = frame.within ?? 0;
  const from = y * frame.width + run * RUN;
  const to = Math.min(from + RUN, (y + 1) * frame.width);
  const first = words[from] as number;
  for (let at = from + 1; at < to; at += 1) {
    const word = words[at] as number;
    if (word === first) continue;
    if (within === 0 || Math.abs(word - first) > within) return false;
  }
  return true;
}
