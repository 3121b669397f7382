import { recordedAs, type Clip } from '@/core/contracts/clip';
import { playedStretches } from '@/core/clip/played';
import { writtenSize } from '@/core/clip/size';
import type { Stretch } from '@/core/values/stretch';
import { asFilm } from '../media/ffmpeg';
import { keysOf, probe } from '../media/probe';
import { heardGraph, type Heard } from './heard';
import type { Film } from './rows';
import { encodedSound, saidArgs, type Writing } from './written';

/** Within that much a picture comes when it did, seconds: containers round times. */
const SAME = 0.002;
/** Beyond the key picture that is meant, before the next one, seconds. */
const INSIDE = 0.001;

/**
 * What of a film that nothing lies on can be taken over picture for picture: all that is kept,
 * where it begins with a key picture.
 * @returns null where it must be written anew
 */
export async function copyable(
  clip: Clip,
  film: Film,
  { format, percent, rate, bits }: Writing,
  signal: AbortSignal,
): Promise<Stretch | null> {
  const isWhole = percent === 100 && rate === null && bits === null;
  if (!isWhole || recordedAs(clip) !== format) return null;
  const { width, height } = writtenSize(film, 100, true);
  if (width !== film.width || height !== film.height) return null;
  const [kept, ...others] = playedStretches(clip.cuts, film.times.length);
  if (!kept || others.length > 0 || kept.speed !== 1) return null;
  const keys = await keysOf(film.path, signal);
  return keys?.has(kept.from) ? kept : null;
}

/** What the program is told to take a stretch of a film over. */
export function copyArgs(
  film: Film,
  { from, to }: Stretch,
  heard: Heard | null,
  writing: Writing,
): string[] {
  const at = ((film.times[from] ?? 0) + INSIDE).toFixed(6);
  // What is sought a little later comes as much later.
  const start = from === 0 ? [] : ['-itsoffset', String(INSIDE), '-ss', at];
  const sound = heard
    ? [
        '-filter_complex',
        heardGraph('[1:a]', heard).join(';'),
        ...encodedSound(writing.format, null),
      ]
    : [];
  return [
    ...[...start, ...asFilm(film.path), ...(heard ? asFilm(heard.path) : [])],
    ...['-map', '0:v:0', '-c:v', 'copy', '-frames:v', String(to - from), ...sound],
    ...saidArgs(writing),
    ...(writing.format === 'mp4' ? ['-movflags', '+faststart', '-f', 'mp4'] : ['-f', 'webm']),
  ];
}

/** Whether a file has every picture of a stretch, each at its time, and no other. */
export async function isCopied(
  path: string,
  { times }: Film,
  { from, to }: Stretch,
  signal: AbortSignal,
): Promise<boolean> {
  const made = (await probe(path, signal)).times;
  const [first = 0, begin = 0] = [times[from], made[0]];
  const isSame = (at: number, i: number): boolean =>
    Math.abs(at - begin - ((times[from + i] ?? Infinity) - first)) < SAME;
  return made.length === to - from && made.every(isSame);
}
