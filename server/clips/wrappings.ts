import { asFilm } from '../media/ffmpeg';

/** How a film is put into a file. */
export interface Wrapping {
  extension: string;
  type: string;
  args: string[];
}

const webm: Wrapping = { extension: 'webm', type: 'video/webm', args: ['-f', 'webm'] };
/** Without a list of edits, which would leave the last picture out: how long it lasts is not told. */
const mp4: Wrapping = {
  ...{ extension: 'mp4', type: 'video/mp4' },
  args: ['-use_editlist', '0', '-f', 'mp4'],
};
/** Which wrapping fits what is in it, so that it plays and is sought in everywhere. */
const fitting: Partial<Record<string, Wrapping>> = { vp8: webm, vp9: webm, av1: webm, h264: mp4 };
const other: Wrapping = { extension: 'mkv', type: 'video/x-matroska', args: ['-f', 'matroska'] };

export const wrappingFor = (codec: string): Wrapping => fitting[codec] ?? other;

export interface Sound {
  codec: string;
  /** It comes so much too late, ms. */
  delay: number;
}

/** The codec of a film's sound, and by how much it comes too late; null where there is none. */
export const soundOf = (codec: string | null, delay: number): Sound | null =>
  codec === null ? null : { codec, delay };

/**
 * The pictures as they were recorded, and the sound, where the wrapping takes it, in its time.
 * @param from where the film is read, once for its pictures and once for its sound
 */
export function copied(
  [from, again]: readonly [string, string],
  sound: Sound | null,
  { extension }: Wrapping,
): string[] {
  const pictures = ['-map', '0:v:0', '-c:v', 'copy'];
  if (!sound) return [...asFilm(from), ...pictures];
  const { codec, delay } = sound;
  const isTaken = codec === 'opus' || (codec === 'aac' && extension !== 'webm');
  return [
    ...[...asFilm(from), '-itsoffset', String(-delay / 1000), ...asFilm(again)],
    ...[...pictures, '-map', '1:a:0', '-c:a', isTaken ? 'copy' : 'libopus'],
  ];
}

/** Into a file that is there from its first picture on, and says how many pictures there are. */
export const into = (made: string, { args }: Wrapping): string[] => [
  ...['-avoid_negative_ts', 'make_zero', ...args, '-progress', 'pipe:1', '-y', made],
];

/** The number of pictures, said last when all are written. */
export const counted = (told: Buffer): number =>
  Number([...told.toString('latin1').matchAll(/^frame=(\d+)/gm)].at(-1)?.[1]);
