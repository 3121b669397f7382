import type { Clip } from '@/core/contracts/clip';
import { isFilm } from '@/core/contracts/clipCopy';
import { keptSeconds } from '@/core/clip/played';
import { silentSeconds } from '@/core/document/silent';
import { writtenSize } from '@/core/clip/size';
import { isUntouched } from '@/core/document/atPicture';
import type { Size } from '@/core/geometry/size';
import { leavesOpaque } from '@/core/paint/whole';
import { stat } from 'node:fs/promises';
import { Fault } from '../base/fault';
import { ffmpeg, Unreadable, type Run } from '../media/ffmpeg';
import { serverShaper } from '../paint/shaper';
import { copyable, copying, isCopied } from './copied';
import type { Heard } from './heard';
import { paintedFilm } from './painted';
import { planesFor } from './planes';
import type { Film } from './rows';
import { sayInside } from './saidInside';
import { usualOf } from './usual';
import { LEAST_BITS, writingArgs, type Writing } from './written';

export interface Producing {
  clip: Clip;
  film: Film;
  /** Where it is written. */
  path: string;
  signal: AbortSignal;
  /** Hears how much of it is written, 0–1. */
  heard: (share: number) => void;
}

const LONGEST = 3_600_000;
const OUT = ['-progress', 'pipe:1', '-y'];
/** Where a film cannot be transparent. */
const BEHIND = '#FFFFFF';
/** So often it is tried anew, smaller, where it became larger than it may. */
const TRIES = 6;
/** Of what would just fit: the next one is not to be too large by a little. */
const SPARE = 0.92;
const LEAST_PERCENT = 5;

/**
 * Writes a clip as a file.
 * @param most bytes that it may have; null for as many as it takes
 * @returns how large its pictures became
 * @throws Fault 409 where it cannot be made so small
 */
export async function produce(
  producing: Producing,
  writing: Writing,
  most: number | null,
): Promise<Size> {
  const { clip, path } = producing;
  let now = writing;
  for (let tries = 0; tries < TRIES; tries += 1) {
    await once(producing, now);
    await sayInside(path, now);
    const { size } = await stat(path);
    if (most === null || size <= most)
      return writtenSize(clip.leaves, now.percent, isFilm(now.format));
    const next = smaller(now, (SPARE * most) / size, keptSeconds(clip.cuts, clip.times), size);
    if (!next) break;
    now = next;
  }
  const words = 'It cannot be made as small as that. Cut something out, or choose another form.';
  throw new Fault(409, 'does-not-fit', words);
}

/**
 * The same with fewer bits: films of fewer a second, moving pictures of fewer pixels.
 * @param share of the bytes it had
 */
function smaller(writing: Writing, share: number, seconds: number, bytes: number): Writing | null {
  if (isFilm(writing.format)) {
    const before = writing.bits ?? (8 * bytes) / Math.max(0.1, seconds);
    const bits = Math.floor(before * share);
    return bits < LEAST_BITS ? null : { ...writing, bits };
  }
  if (writing.percent <= LEAST_PERCENT) return null;
  const percent = Math.max(LEAST_PERCENT, Math.floor(writing.percent * Math.sqrt(share)));
  return { ...writing, percent };
}

async function once(producing: Producing, writing: Writing): Promise<void> {
  const { clip, film, path, signal } = producing;
  const { cuts, document, leaves } = clip;
  const run = { most: LONGEST, signal, heard: progressOf(producing) };
  const heard = heardOf(producing, writing);
  if (isUntouched(document, film)) {
    if (await copied(producing, writing, heard, run)) return;
    const args = writingArgs({ source: { ...film, cuts }, heard }, film, writing);
    await ffmpeg([...args, ...OUT, path], run);
    return;
  }
  const opaque = leavesOpaque(document, true, await serverShaper());
  const background = isFilm(writing.format) && !opaque ? BEHIND : null;
  const inPlanes = isFilm(writing.format)
    ? await planesFor(clip, film.path, writing.fine, signal)
    : null;
  const painting = { ...run, background, inPlanes };
  const inputs = [paintedFilm({ ...film, cuts, document }, leaves, painting)];
  const painted = inPlanes ? { planes: inPlanes.planes } : { opaque };
  const args = writingArgs({ painted, heard }, leaves, writing);
  await ffmpeg([...args, ...OUT, path], { ...run, inputs });
}

/** @returns false where it must be written anew, as where the programs can make nothing of its packing */
async function copied(
  { clip, film, path, signal }: Producing,
  writing: Writing,
  heard: Heard | null,
  run: Run,
): Promise<boolean> {
  try {
    const usual = writing.fine ? null : await usualOf(clip.id, film);
    const now = { ...clip, ...usual?.packed };
    const taken = await copyable(now, usual?.film ?? film, writing, signal);
    const copies = taken && (await copying(taken, clip, heard, writing, signal));
    if (!copies) return false;
    await ffmpeg([...copies.args, ...OUT, path], { ...run, inputs: [copies.input] });
    return await isCopied(path, taken, clip, signal);
  } catch (error) {
    if (error instanceof Unreadable) return false;
    throw error;
  }
}

/** What is heard of it in such a file. */
function heardOf({ clip, film }: Producing, { format, sound }: Writing): Heard | null {
  if (!clip.sound || !isFilm(format) || sound === 'none') return null;
  const silent = sound === 'all' ? [] : silentSeconds(clip.document, film.times);
  return { ...film, cuts: clip.cuts, silent };
}

/** How much is written is told by the program itself, some times a second. */
function progressOf({ clip, heard }: Producing): (piece: Buffer) => void {
  const seconds = Math.max(0.1, keptSeconds(clip.cuts, clip.times));
  return (piece) => {
    const told = /out_time_us=(\d+)/.exec(piece.toString('latin1'))?.[1];
    if (told) heard(Math.min(0.99, Number(told) / 1e6 / seconds));
  };
}
