import { createReadStream } from 'node:fs';
import { rm } from 'node:fs/promises';
import { isMatroska, MatroskaTimes } from '@/core/clip/matroskaTimes';
import { shared } from '../base/shared';
import { alongPath, partPath } from '../media/files';
import { ffmpeg, SECOND, STDIN } from '../media/ffmpeg';
import { copied, counted, into, wrappingFor, type Sound } from './wrappings';

/*
 * A film is wrapped while more of it is recorded, so that nobody waits for that in the end. It is a
 * help alone: where it fails, or the server went away meanwhile, the whole is wrapped in the end.
 */

/** Recordings that are wrapped so at the same time. */
const MOST = 3;
/** It ends when the recording does, which may pause for days, ms. */
const WHILE = 2 ** 31 - 1;
/** What is left of it in the end is soon done, ms. */
const LAST = 60_000;
const READ_AT_ONCE = 1_000_000;

interface Along {
  times: MatroskaTimes;
  /** Bytes of the recording that are on the disk. */
  there: number;
  isEnded: boolean;
  /** Whoever hands it on waits here for more, or to hear that nothing more comes. */
  waiting: (() => void)[];
  stop: AbortController;
  /** Once it is begun: how many pictures were wrapped; null where it failed. */
  wrapped: Promise<number | null> | null;
}

const held = shared('wrapAlong', () => new Map<string, Along>());

/** What came is on the disk. @param before bytes that were there before it */
export function heardAlong(shot: string, before: number, piece: Uint8Array): void {
  if (before === 0 && isMatroska(piece) && held.size < MOST)
    held.set(shot, {
      ...{ times: new MatroskaTimes(), there: 0, isEnded: false, wrapped: null },
      ...{ waiting: [], stop: new AbortController() },
    });
  const along = held.get(shot);
  if (!along) return;
  // Something came that was not heard of here.
  if (along.there !== before) return drop(shot);
  along.there += piece.length;
  along.times.read(piece);
  goOn(along);
}

/** Begins with it, once it is known what is in it. */
export function wrapAlong(shot: string, codec: string, sound: Sound | null): void {
  const along = held.get(shot);
  if (!along || along.wrapped) return;
  const wrapping = wrappingFor(codec);
  const args = [...copied([STDIN, SECOND], sound, wrapping), ...into(alongPath(shot), wrapping)];
  const { signal } = along.stop;
  const inputs = (sound ? [0, 1] : [0]).map(() => handedOn(partPath(shot), along));
  // Whoever records goes before it.
  const run = { most: WHILE, signal, inputs };
  along.wrapped = ffmpeg(args, run).then(counted, async () => {
    // What it wrote takes no room any more.
    await forgetAlong(shot);
    return null;
  });
}

/** What came of it is written a second time already. */
export const isWrappedAlong = (shot: string): boolean => Boolean(held.get(shot)?.wrapped);

function goOn({ waiting }: Along): void {
  for (const one of waiting.splice(0)) one();
}

/** The recording as it grows, until it has ended. */
async function* handedOn(path: string, along: Along): AsyncGenerator<Uint8Array> {
  for (let at = 0; ;) {
    if (at < along.there) {
      const part = { start: at, end: along.there - 1, highWaterMark: READ_AT_ONCE };
      for await (const piece of createReadStream(path, part)) {
        at += (piece as Buffer).length;
        yield piece as Buffer;
      }
    } else if (along.isEnded) return;
    else
      await new Promise<void>((resolve) => {
        along.waiting.push(resolve);
      });
  }
}

/**
 * Nothing more comes.
 * @param bytes of the whole recording
 * @returns when the pictures come in the recording, which lies wrapped at `alongPath` now, or null
 *   where it is to be wrapped as a whole
 */
export async function endAlong(
  shot: string,
  bytes: number,
  signal: AbortSignal,
): Promise<readonly number[] | null> {
  const along = held.get(shot);
  if (!along?.wrapped || along.there !== bytes) {
    drop(shot);
    return null;
  }
  along.isEnded = true;
  goOn(along);
  const stop = () => end(along);
  const late = setTimeout(stop, LAST);
  signal.addEventListener('abort', stop, { once: true });
  const count = await along.wrapped;
  clearTimeout(late);
  signal.removeEventListener('abort', stop);
  held.delete(shot);
  const { times } = along.times;
  return count !== null && count > 0 && count === times.length ? times : null;
}

/** Nothing more is handed on, and what goes on ends. */
function end(along: Along): void {
  along.stop.abort();
  along.isEnded = true;
  goOn(along);
}

function drop(shot: string): void {
  const along = held.get(shot);
  if (along) end(along);
  held.delete(shot);
}

/** Neither it nor what it wrote is wanted any more. */
export async function forgetAlong(shot: string): Promise<void> {
  drop(shot);
  await rm(alongPath(shot), { force: true });
}

/** All that this process wraps along is broken off. */
export async function wrapNoMore(): Promise<void> {
  const all = [...held].map(([shot, { wrapped }]) => ({ shot, wrapped }));
  for (const { shot } of all) drop(shot);
  for (const { wrapped } of all) await wrapped;
}
