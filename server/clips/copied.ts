import type { Clip } from '@/core/contracts/clip';
import { recordedAs } from '@/core/contracts/clipCopy';
import { keptPictures, keptSeconds, type KeptPicture } from '@/core/clip/played';
import { writtenSize } from '@/core/clip/size';
import { takenOver, type Piece } from '@/core/clip/takenOver';
import { asFilm } from '../media/ffmpeg';
import { pixelsOf } from '../media/pictures';
import { keysOf, probe } from '../media/probe';
import { heardGraph, type Heard } from './heard';
import { joinedFilm, partsOf, type TakenOver } from './joined';
import type { Film } from './rows';
import { encodedSound, saidArgs, type Writing } from './written';

/** Within that much a picture comes when it did, seconds: containers round times. */
const SAME = 0.002;
const FEW = 8;

const PACKED = { mp4: 'h264', webm: 'vp9', av1: 'av1' } as const;
const isPacked = (format: string): format is keyof typeof PACKED => format in PACKED;

/** For each piece a program starts, which takes half a second: all of many short ones is quicker anew. */
const mostPieces = ({ cuts }: Pick<Clip, 'cuts'>, { times }: Film): number =>
  Math.max(FEW, keptSeconds(cuts, times));

/**
 * What of a film that nothing lies on can be taken over picture for picture.
 * @returns null where all must be written anew
 */
export async function copyable(
  clip: Pick<Clip, 'codec' | 'fineColours' | 'cuts'>,
  film: Film,
  { format, percent, rate, bits, fine }: Writing,
  signal: AbortSignal,
): Promise<TakenOver | null> {
  const isWhole = percent === 100 && rate === null && bits === null;
  const isAsRecorded = recordedAs(clip) === format && clip.fineColours === fine;
  if (!isWhole || !isAsRecorded || !isPacked(format)) return null;
  const { width, height } = writtenSize(film, 100, true);
  if (width !== film.width || height !== film.height) return null;
  const keys = await keysOf(film.path, signal);
  const pieces = keys && takenOver(clip.cuts, film.times.length, keys);
  if (!keys || !pieces || pieces.length > mostPieces(clip, film)) return null;
  return { film, packed: PACKED[format], pieces, keys };
}

/**
 * Beside its pictures a film of H.264 may say what made it, when and where (supplemental enhancement
 * information, ITU-T H.264, Annex D): none of that is needed to see it, and it was let out by nobody.
 */
const unsaid = ({ packed }: TakenOver): string[] =>
  packed === 'h264' ? ['-bsf:v', 'filter_units=remove_types=6'] : [];

/** What the program is told, and what it is given, to write what is taken over. */
export interface Copying {
  args: string[];
  input: AsyncIterable<Uint8Array>;
}

/** @returns null where it cannot be made one film */
export async function copying(
  taken: TakenOver,
  clip: Pick<Clip, 'cuts'>,
  heard: Heard | null,
  writing: Writing,
  signal: AbortSignal,
): Promise<Copying | null> {
  const parts = await partsOf(taken, signal);
  if (!parts) return null;
  const sound = heard
    ? [
        '-filter_complex',
        heardGraph('[1:a]', heard).join(';'),
        ...encodedSound(writing.format, null),
      ]
    : [];
  const args = [
    ...['-f', 'matroska', '-i', 'pipe:0', ...(heard ? asFilm(heard.path) : [])],
    ...['-map', '0:v:0', '-c:v', 'copy', ...unsaid(taken), ...sound, ...saidArgs(writing)],
    ...(writing.format === 'mp4' ? ['-movflags', '+faststart', '-f', 'mp4'] : ['-f', 'webm']),
  ];
  return { args, input: joinedFilm(taken, parts, clip, signal) };
}

/** Those after which, and before which, something else lies that was packed anew. */
function besideJoins(pieces: readonly Piece[]): number[] {
  const after = pieces.filter(({ asRecorded }, i) => asRecorded && i > 0);
  const [first, last] = [after[0], after.at(-1)];
  return first && last ? [...new Set([first.from, last.from, last.to - 1])] : [];
}

/**
 * Whether a file has every picture that is kept, each at its time, and no other, and pictures beside
 * where it was joined are those of the film, to the pixel.
 */
export async function isCopied(
  path: string,
  { film, pieces }: TakenOver,
  { cuts }: Pick<Clip, 'cuts'>,
  signal: AbortSignal,
): Promise<boolean> {
  const kept = keptPictures(cuts, film.times);
  const { times } = await probe(path, signal);
  const begin = times[0] ?? 0;
  const isInTime = ({ at }: KeptPicture, i: number): boolean =>
    Math.abs((times[i] ?? NaN) - begin - at / 1000) < SAME;
  if (times.length !== kept.length || !kept.every(isInTime)) return false;
  const isSame = async (picture: number): Promise<boolean> => {
    const at = kept.findIndex((one) => one.picture === picture);
    const made = await pixelsOf({ path, times }, at, signal);
    return made.equals(await pixelsOf(film, picture, signal));
  };
  return (await Promise.all(besideJoins(pieces).map(isSame))).every(Boolean);
}
