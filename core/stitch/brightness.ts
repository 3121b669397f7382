import type { Frame } from './frame';
import { MOST_SHIFTS, type Voted } from './rowVotes';

/** So far apart two pixels are still of the same brightness, 0–255: colours that were cut off change it. */
const WITHIN = 12;

/** Parts of a row whose profiles are compared by themselves. */
const BANDS = 8;
/** A row of a band is drawn on when its brightness changes by so much along it, 0–255 summed up. */
const DRAWN = 60;
/** Two profiles are of the same row when they differ by at most this share, or so much. */
const SHARE = 0.06;
const LEAST = 12;
/** A shift is one when so many drawn rows of bands speak for it. */
const LEAST_ROWS = 20;

/** Every so many-th pair of rows is looked at. */
const EVERY = 8;
/** Of four pixels of one colour each is as far from grey as the others, but for rounding. */
const ROUNDING = 3;
/** So much of what has a colour must lie in fours of one colour. */
const MOST = 0.9;
/** With fewer fours that have a colour, all is as good as grey. */
const COLOURED = 40;

/** A frame's brightness, and what its rows are known again by. */
export interface Brightness {
  frame: Frame;
  /** How much the brightness changes along each row of each band, band by band. */
  profile: Int32Array;
}

const known = new WeakMap<Frame, Brightness | null>();

/**
 * The brightness of a picture that has one colour for each two by two pixels, as video has, and as a
 * browser hands a shared screen over (4:2:0). Moved by an odd number of pixels, coloured things on
 * it are other ones, while their brightness is the same.
 * @returns null where each pixel has a colour of its own, or all is as good as grey
 */
export function brightnessOf(frame: Frame): Brightness | null {
  const before = known.get(frame);
  if (before !== undefined) return before;
  const luma = isSubsampled(frame) ? lumaOf(frame) : null;
  const brightness = luma && { frame: luma, profile: profileOf(luma) };
  known.set(frame, brightness);
  return brightness;
}

// What is watched may begin within a four.
const isSubsampled = (frame: Frame): boolean =>
  [0, 1].some((dy) => [0, 1].some((dx) => isInFours(frame, dx, dy)));

function isInFours({ words, width, height }: Frame, dx: number, dy: number): boolean {
  let [coloured, alike] = [0, 0];
  for (let y = dy; y + 1 < height; y += 2 * EVERY) {
    for (let x = dx; x + 1 < width; x += 2) {
      const at = y * width + x;
      const first = words[at] as number;
      const others = [words[at + 1], words[at + width], words[at + width + 1]] as number[];
      if (others.every((word) => word === first)) continue;
      const is = coloursOf([first, ...others]);
      if (is === 'none') continue;
      coloured += 1;
      if (is === 'one') alike += 1;
    }
  }
  return coloured >= COLOURED && alike >= MOST * coloured;
}

/** How many colours there are in pixels of different brightness; those cut off say nothing. */
function coloursOf(four: readonly number[]): 'none' | 'one' | 'several' {
  let [redFrom, redTo, blueFrom, blueTo] = [255, -255, 255, -255];
  for (const word of four) {
    const r = word & 255;
    const g = (word >> 8) & 255;
    const b = (word >> 16) & 255;
    if (isCutOff(r) || isCutOff(g) || isCutOff(b)) return 'none';
    redFrom = Math.min(redFrom, r - g);
    redTo = Math.max(redTo, r - g);
    blueFrom = Math.min(blueFrom, b - g);
    blueTo = Math.max(blueTo, b - g);
  }
  const isGrey = Math.max(redTo, -redFrom, blueTo, -blueFrom) <= ROUNDING;
  if (isGrey) return 'none';
  return redTo - redFrom <= ROUNDING && blueTo - blueFrom <= ROUNDING ? 'one' : 'several';
}

const isCutOff = (value: number): boolean => value === 0 || value === 255;

/** How bright each pixel is, 0–255 (weights of ITU-R BT.601, in 1/256). */
function lumaOf({ words, width, height }: Frame): Frame {
  const luma = new Int32Array(words.length);
  for (let at = 0; at < words.length; at += 1) {
    const word = words[at] as number;
    luma[at] =
      (77 * (word & 255) + 150 * ((word >> 8) & 255) + 29 * ((word >> 16) & 255) + 128) >> 8;
  }
  return { words: luma, width, height, within: WITHIN };
}

function profileOf({ words, width, height }: Frame): Int32Array {
  const profile = new Int32Array(BANDS * height);
  for (let band = 0; band < BANDS; band += 1) {
    const from = Math.floor((band * width) / BANDS) + 1;
    const to = Math.floor(((band + 1) * width) / BANDS);
    for (let y = 0; y < height; y += 1) {
      let sum = 0;
      for (let at = y * width + from; at < y * width + to; at += 1)
        sum += Math.abs((words[at] as number) - (words[at - 1] as number));
      profile[band * height + y] = sum;
    }
  }
  return profile;
}

/**
 * How far what is drawn may have moved up between two frames, by the profiles of their rows; rows
 * that are as they were have no vote.
 * @returns those with the most votes, at most `MOST_SHIFTS`
 */
export function profiledShifts(before: Brightness, now: Brightness): Voted[] {
  const rows = now.frame.height;
  const moved = movedRows(before.profile, now.profile);
  const voted: Voted[] = [];
  for (let shift = 1 - rows; shift < rows; shift += 1) {
    let votes = 0;
    for (const at of moved) {
      const from = (at % rows) + shift;
      if (from < 0 || from >= rows) continue;
      if (isSame(before.profile[at + shift] as number, now.profile[at] as number)) votes += 1;
    }
    if (votes >= LEAST_ROWS) voted.push({ shift, votes });
  }
  return voted.sort((a, b) => b.votes - a.votes).slice(0, MOST_SHIFTS);
}

/** The drawn rows of bands that are not as they were. */
function movedRows(before: Int32Array, now: Int32Array): Int32Array {
  const moved: number[] = [];
  now.forEach((value, at) => {
    if (value >= DRAWN && !isSame(before[at] as number, value)) moved.push(at);
  });
  return Int32Array.from(moved);
}

const isSame = (a: number, b: number): boolean =>
  Math.abs(a - b) <= Math.max(LEAST, SHARE * Math.max(a, b));
