import { rm, stat } from 'node:fs/promises';
import type { Frame } from '../frames/intake';
import { alongPath, filmPath, partPath, putInPlace, syncPath } from '../media/files';
import { ffmpeg } from '../media/ffmpeg';
import { ofPictures, probe, type Head, type Probed } from '../media/probe';
import type { NewFilm } from './added';
import { firstOf } from './firstPicture';
import { endAlong, forgetAlong } from './wrapAlong';
import { copied, counted, into, soundOf, wrappingFor } from './wrappings';

const LONGEST = 120_000;

export interface Film extends NewFilm {
  /** Its first picture. */
  first: Frame;
}

interface Recorded {
  shotId: string;
  bytes: number;
  /** Its sound comes so much too late, ms. */
  soundDelay: number;
}

/** A film in its wrapping, and what is in it. */
interface Wrapped {
  made: string;
  probed: () => Promise<Probed>;
}

/** What was wrapped while it was recorded; null where that is to be done now. */
async function wrappedAlong(
  { shotId, bytes }: Recorded,
  { shows, sound }: Head,
  signal: AbortSignal,
): Promise<Wrapped | null> {
  const times = await endAlong(shotId, bytes, signal);
  if (!times || !shows) {
    // Where that failed, what it wrote takes no room any more.
    await forgetAlong(shotId);
    return null;
  }
  const made = alongPath(shotId);
  // With sound pictures come later where that begins before them.
  if (sound !== null) return { made, probed: () => probe(made, signal, { eager: true }) };
  const probed = ofPictures(shows, times);
  return { made, probed: () => Promise.resolve(probed) };
}

async function wrappedNow(
  { shotId, soundDelay }: Recorded,
  { pictures, sound }: Head,
  signal: AbortSignal,
): Promise<Wrapped> {
  const from = partPath(shotId);
  const made = filmPath(`${shotId}.wrapped`);
  const wrapping = wrappingFor(pictures);
  const heard = soundOf(sound, soundDelay);
  // Silent, its pictures come when they came: both at once.
  const before = heard ? null : probe(from, signal, { eager: true }).catch(() => null);
  const run = { most: LONGEST, signal, eager: true };
  const count = counted(
    await ffmpeg([...copied([from, from], heard, wrapping), ...into(made, wrapping)], run),
  );
  /** As was seen before it was wrapped, unless something was lost of it then. */
  const probed = async () => {
    const seen = await before;
    return seen?.times.length === count ? seen : probe(made, signal, { eager: true });
  };
  return { made, probed };
}

/**
 * What a recorder wrote as it went has neither a length nor places to go to: these are added. A
 * person waits for it: what can be done at once is.
 */
export async function wrap(recorded: Recorded, signal: AbortSignal): Promise<Film> {
  const { shotId: shot } = recorded;
  const first = firstOf(shot, signal);
  // What is wrong with the film is said first.
  const head = await first.head;
  const { extension, type } = wrappingFor(head.pictures);
  try {
    const { made, probed } =
      (await wrappedAlong(recorded, head, signal)) ?? (await wrappedNow(recorded, head, signal));
    // Bringing it to the disk takes as long as looking at it.
    const [read, { size: bytes }] = await Promise.all([probed(), stat(made), syncPath(made)]);
    const file = `${shot}.${extension}`;
    await putInPlace(made, filmPath(file));
    const sound = head.sound !== null;
    return { file, type, sound, first: await first.frame, bytes, ...read };
  } catch (error) {
    signal.throwIfAborted();
    // One without any picture cannot be wrapped, and is told from one that is damaged.
    await probe(partPath(shot), signal);
    throw error;
  } finally {
    await rm(filmPath(`${shot}.wrapped`), { force: true });
    await forgetAlong(shot);
  }
}
