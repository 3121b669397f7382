import { filmHead, pictureHead, type RawKind } from '@/core/clip/matroska';
import type { Cuts } from '@/core/clip/cuts';
import { keptPictures, type KeptPicture } from '@/core/clip/played';
import type { ShotDocument } from '@/core/document/document';
import type { Size } from '@/core/geometry/size';
import type { Planes } from '@/core/raster/yCbCr';
import { Fault } from '../base/fault';
import { ffmpegOutput } from '../media/ffmpeg';
import { bytesFor } from '../paint/clipPixels';
import { serverShaper } from '../paint/shaper';
import { ClipPainter } from './painter';
import type { InPlanes } from './planes';
import { pictureArgs } from './written';

/** A film with what lies on it. */
export interface MarkedFilm extends Size {
  path: string;
  times: readonly number[];
  cuts: Cuts;
  document: ShotDocument;
}

export interface Painting {
  signal: AbortSignal;
  /** ms */
  most: number;
  /** What shows where nothing is; null where that stays so. */
  background: string | null;
  /** How its pixels are handed on; null for RGBA, some of which may be transparent. */
  inPlanes: InPlanes | null;
}

/** So many pictures are painted while the one before them is written. */
const AHEAD = 3;

/** Bytes that a stream never takes without waiting until they are written. */
const LARGE = 1_000_000;

/**
 * Pieces of a stream as pieces of one length, the rest of which is left out. A large one lies where
 * the one lay that came so many before it: memory that is asked for anew is dear to clear away. Of
 * small ones a stream may hold several that are not written yet.
 */
async function* wholes(
  pieces: AsyncIterable<Buffer>,
  length: number,
  count: number,
): AsyncGenerator<Buffer> {
  const made = (): Buffer => Buffer.allocUnsafeSlow(length);
  const places = length < LARGE ? [] : Array.from({ length: count }, made);
  const next = (): Buffer => {
    const place = places.shift();
    if (!place) return made();
    places.push(place);
    return place;
  };
  let whole = next();
  let filled = 0;
  for await (const piece of pieces) {
    for (let at = 0; at < piece.length;) {
      const taken = piece.copy(whole, filled, at);
      at += taken;
      filled += taken;
      if (filled < length) continue;
      yield whole;
      whole = next();
      filled = 0;
    }
  }
}

/** What is done with each of some things, in their order, while what comes after them is begun. */
async function* ahead<T, R>(
  things: AsyncIterable<T>,
  act: (thing: T) => Promise<R>,
): AsyncGenerator<R> {
  const begun: Promise<R>[] = [];
  for await (const thing of things) {
    const done = act(thing);
    // What fails is told at its turn.
    done.catch(() => undefined);
    begun.push(done);
    const first = begun.length > AHEAD ? begun.shift() : null;
    if (first) yield await first;
  }
  for (const done of begun) yield await done;
}

interface Unpainted {
  next: KeptPicture;
  frame: Buffer;
}

async function* keptFrames(film: MarkedFilm, painting: Painting): AsyncGenerator<Unpainted> {
  const kept = keptPictures(film.cuts, film.times).values();
  const output = ffmpegOutput(pictureArgs(film, painting.inPlanes), painting);
  // Those that are painted, the one that is written, and the one that is read.
  const places = AHEAD + 3;
  for await (const frame of wholes(output, bytesFor(film, planesIn(painting)), places)) {
    const next: KeptPicture | undefined = kept.next().value;
    if (!next) break;
    yield { next, frame };
  }
  if (!kept.next().done)
    throw new Fault(422, 'unreadable-film', 'A part of this film cannot be read any more.');
}

const planesIn = ({ inPlanes }: Painting): Planes | null => inPlanes?.planes ?? null;

const kindOf = (planes: Planes | null): RawKind =>
  planes ? (planes.half ? 'I420' : '444P') : 'RGBA';

/**
 * What is kept of a film as it leaves, picture for picture: nothing but what was painted is in it.
 * @param size of a picture as it leaves
 * @returns a film as core/clip/matroska.ts says
 */
export async function* paintedFilm(
  film: MarkedFilm,
  size: Size,
  painting: Painting,
): AsyncGenerator<Uint8Array> {
  const painter = new ClipPainter(film, painting, await serverShaper());
  const painted = ahead(keptFrames(film, painting), async ({ next, frame }) => ({
    next,
    pixels: await painter.paint(frame, next.picture),
  }));
  yield filmHead(size, { raw: kindOf(planesIn(painting)) });
  for await (const { next, pixels } of painted) {
    yield pictureHead({ ...next, length: pixels.length, isKey: true });
    yield pixels;
  }
}
