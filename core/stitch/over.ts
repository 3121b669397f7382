import type { Frame } from './frame';
import { MOVED, RUN, runsOf, STAYED, UNKNOWN } from './runs';

/** So many rows of a run are a block. */
export const BAND = 8;

/** What is drawn in a block, and what its runs did. */
interface Blocks {
  runs: number;
  bands: number;
  /** All of it stayed. */
  stayed: Uint8Array;
  /** … while what was where it would have come from did not come. */
  outstayed: Uint8Array;
  /** All of it stayed, and it has more than one colour. */
  drawn: Uint8Array;
}

function blocksOf(now: Frame, did: Uint8Array): Blocks {
  const runs = runsOf(now.width);
  const bands = Math.ceil(now.height / BAND);
  const all: Blocks = {
    ...{ runs, bands },
    stayed: new Uint8Array(runs * bands),
    outstayed: new Uint8Array(runs * bands),
    drawn: new Uint8Array(runs * bands),
  };
  for (let block = 0; block < runs * bands; block += 1) {
    const run = block % runs;
    const top = Math.floor(block / runs) * BAND;
    const bottom = Math.min(top + BAND, now.height);
    let [stayed, outstayed] = [STAYED, 0];
    for (let y = top; y < bottom; y += 1) {
      const what = did[y * runs + run] as number;
      stayed &= what;
      if ((what & (STAYED | MOVED | UNKNOWN)) === STAYED) outstayed = 1;
    }
    if (!stayed) continue;
    all.stayed[block] = 1;
    all.outstayed[block] = outstayed;
    all.drawn[block] = isDrawn(now, run * RUN, top, bottom) ? 1 : 0;
  }
  return all;
}

function isDrawn({ words, width }: Frame, left: number, top: number, bottom: number): boolean {
  const first = words[top * width + left];
  const right = Math.min(left + RUN, width);
  for (let y = top; y < bottom; y += 1)
    for (let x = left; x < right; x += 1) if (words[y * width + x] !== first) return true;
  return false;
}

/**
 * Which blocks of a frame lie over what is scrolled: what is drawn there stayed while the rest
 * moved, or lies where it was known to lie.
 * @param did what its runs did (`runsBetween`)
 * @param before the blocks of the frame before
 * @returns 1 for each such block, row by row
 */
export function lyingOver(now: Frame, did: Uint8Array, before: Uint8Array | null): Uint8Array {
  const { runs, bands, stayed, outstayed, drawn } = blocksOf(now, did);
  const over = new Uint8Array(runs * bands);
  for (let block = 0; block < over.length; block += 1) {
    const isOver = drawn[block] && (outstayed[block] || before?.[block]);
    if (isOver) over[block] = 1;
  }
  filled(over, stayed, runs);
  return over;
}

/** Takes in what stayed and is enclosed: a button is more than its edge and its words. */
function filled(over: Uint8Array, stayed: Uint8Array, runs: number): void {
  const seen = new Uint8Array(over.length);
  for (let start = 0; start < over.length; start += 1) {
    if (!over[start] || seen[start]) continue;
    const box = { left: runs, right: 0, top: over.length, bottom: 0 };
    const open = [start];
    seen[start] = 1;
    for (let block = open.pop(); block !== undefined; block = open.pop()) {
      const x = block % runs;
      const y = (block - x) / runs;
      box.left = Math.min(box.left, x);
      box.right = Math.max(box.right, x);
      box.top = Math.min(box.top, y);
      box.bottom = Math.max(box.bottom, y);
      for (const other of around(block, x, runs)) {
        if (!over[other] || seen[other]) continue;
        seen[other] = 1;
        open.push(other);
      }
    }
    for (let y = box.top; y <= box.bottom; y += 1)
      for (let x = box.left; x <= box.right; x += 1)
        if (stayed[y * runs + x]) over[y * runs + x] = seen[y * runs + x] = 1;
  }
}

/** The blocks beside one, corners included; some may lie outside. */
function around(block: number, x: number, runs: number): number[] {
  const columns = [0, ...(x > 0 ? [-1] : []), ...(x < runs - 1 ? [1] : [])];
  return [-runs, 0, runs].flatMap((row) => columns.map((column) => block + row + column));
}
