import { Changes } from '@/core/clip/changes';
import { STRIP, stripPicture } from '@/core/clip/strip';
import sharp from 'sharp';
import { rm } from 'node:fs/promises';
import { putInPlace, stripPath } from './files';
import { asFilm, ffmpeg } from './ffmpeg';

const PATIENCE = 30_000;
/** What comes that much before its time at most is the picture, seconds: times are rounded. */
const EARLIER = 0.0005;

interface Times {
  path: string;
  times: readonly number[];
}

/** One picture of a film, exact as it was recorded, as PNG. @param number from 0 */
export const pictureOf = (film: Times, number: number, signal?: AbortSignal): Promise<Buffer> =>
  picked(film, number, ['-f', 'image2pipe', '-c:v', 'png'], signal);

/** The same as RGB, row-major, width × height × 3. */
export const pixelsOf = (film: Times, number: number, signal?: AbortSignal): Promise<Buffer> =>
  picked(film, number, ['-f', 'rawvideo'], signal);

async function picked(
  { path, times }: Times,
  number: number,
  written: readonly string[],
  signal?: AbortSignal,
): Promise<Buffer> {
  const [at = 0, before = 0] = [times[number], times[number - 1]];
  // Two may come right after each other.
  const earlier = Math.min(EARLIER, (at - before) / 2);
  // From the key picture before it; the program's own sought start is not as exact.
  const where = number > 0 ? ['-noaccurate_seek', '-ss', at.toFixed(6)] : [];
  const seen = number > 0 ? ['-vf', `select=gte(t\\,-${earlier.toFixed(6)})`] : [];
  const one = ['-map', '0:v:0', ...seen, '-frames:v', '1', ...written, '-pix_fmt', 'rgb24', '-'];
  return ffmpeg([...where, ...asFilm(path), ...one], { most: PATIENCE, signal });
}

const LOOKING = 1_800_000;

export interface Looked {
  /** Numbers of pictures. */
  changes: number[];
}

/**
 * Looks at every picture of a film once: where something changes, and a strip of small pictures.
 * @param count of its pictures
 */
export async function lookThrough(
  shot: string,
  path: string,
  film: { width: number; height: number; times: readonly number[] },
  signal?: AbortSignal,
): Promise<Looked> {
  const count = film.times.length;
  const scale = STRIP.height / film.height;
  const width = Math.max(2, Math.round(film.width * scale));
  const size = width * STRIP.height * 3;
  const places = Array.from({ length: STRIP.pictures }, (_, i) => stripPicture(i, count));
  const wanted = new Set(places);
  const small = new Map<number, Buffer>();
  const perSecond = count / Math.max(1, film.times.at(-1) ?? 1);
  const changes = new Changes(Math.max(2, Math.round(perSecond)));
  let rest: Buffer = Buffer.alloc(0);
  let number = 0;
  const heard = (piece: Buffer): void => {
    rest = rest.length === 0 ? piece : Buffer.concat([rest, piece]);
    for (; rest.length >= size; rest = rest.subarray(size)) {
      const picture = Buffer.from(rest.subarray(0, size));
      if (wanted.has(number)) small.set(number, picture);
      changes.saw(greyOf(picture));
      number += 1;
    }
  };
  const made = ['-vf', `scale=${width}:${STRIP.height}:flags=area`, '-fps_mode', 'passthrough'];
  await ffmpeg(
    [...asFilm(path), '-map', '0:v:0', ...made, '-f', 'rawvideo', '-pix_fmt', 'rgb24', '-'],
    {
      most: LOOKING,
      signal,
      heard,
    },
  );
  await writeStrip(
    shot,
    places.map((at) => small.get(Math.min(at, number - 1))),
    width,
  );
  return { changes: changes.found };
}

function greyOf(rgb: Buffer): Uint8Array {
  const grey = new Uint8Array(rgb.length / 3);
  for (let i = 0; i < grey.length; i += 1)
    grey[i] = ((rgb[3 * i] ?? 0) + 2 * (rgb[3 * i + 1] ?? 0) + (rgb[3 * i + 2] ?? 0)) >> 2;
  return grey;
}

async function writeStrip(
  shot: string,
  pictures: readonly (Buffer | undefined)[],
  width: number,
): Promise<void> {
  const { height } = STRIP;
  const raw = { width, height, channels: 3 } as const;
  const laid = pictures.flatMap((input, i) =>
    input ? [{ input, raw, left: i * width, top: 0 }] : [],
  );
  const part = `${stripPath(shot)}.part`;
  try {
    await sharp({
      create: { width: width * STRIP.pictures, height, channels: 3, background: '#E4DED2' },
    })
      .composite(laid)
      .jpeg({ quality: 80, chromaSubsampling: '4:4:4' })
      .toFile(part);
    await putInPlace(part, stripPath(shot));
  } finally {
    await rm(part, { force: true });
  }
}
