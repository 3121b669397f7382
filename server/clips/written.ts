import { isFilm, type ClipFormat, type SoundRule } from '@/core/contracts/clipCopy';
import type { Cuts } from '@/core/clip/cuts';
import { everyOf, playedStretches } from '@/core/clip/played';
import { writtenSize } from '@/core/clip/size';
import type { Size } from '@/core/geometry/size';
import type { Planes } from '@/core/raster/yCbCr';
import { asFilm } from '../media/ffmpeg';
import type { InPlanes } from './planes';
import { heardGraph, heardStretches, soundBits, type Heard } from './heard';

/** How a clip is written. */
export interface Writing {
  format: ClipFormat;
  percent: number;
  /** Pictures a second; null for those of the clip. */
  rate: number | null;
  /** Where it is let out. */
  title: string | null;
  /** What is to be seen, where that is let out. */
  description: string | null;
  /** Of a film, so many bits a second; null for as many as it takes to look right. */
  bits: number | null;
  /** Of a film: colours as fine as brightness. */
  fine: boolean;
  /** How much of its sound goes with a film. */
  sound: SoundRule;
}

/** Which pictures of a film. */
interface Source {
  path: string;
  times: readonly number[];
  cuts: Cuts;
}

/** What was painted of a film: RGBA, some of which may be transparent, or in planes. */
export type Painted = { opaque: boolean; planes?: never } | { opaque?: never; planes: Planes };

/** What a film is written from: itself, or what was painted of it and comes as core/clip/matroska.ts says. */
export type Given = ({ source: Source; painted?: never } | { source?: never; painted: Painted }) & {
  /** Null where nothing is heard. */
  heard: Heard | null;
};

/** Bits a second, below which no picture can be told. */
export const LEAST_BITS = 8_000;

const pixelsOf = (fine: boolean): string => (fine ? 'yuv444p' : 'yuv420p');
/** How brightness and colours are made of red, green and blue, so that every player agrees. */
const spaces = { bt709: 'bt709', bt601: 'smpte170m' } as const;
export const colourArgs = (matrix: Planes['matrix']): string[] => [
  ...['-colorspace', spaces[matrix], '-color_primaries', 'bt709', '-color_trc', 'bt709'],
];
/** By the program's own documentation; likeness first, then size. */
const encoders: Record<ClipFormat, (bits: number | null, fine: boolean) => string[]> = {
  webm: (bits, fine) => [
    ...['-c:v', 'libvpx-vp9', ...(bits ? within(bits) : ['-crf', '24', '-b:v', '0'])],
    ...['-deadline', 'realtime', '-cpu-used', '6', '-row-mt', '1'],
    ...['-pix_fmt', pixelsOf(fine), '-f', 'webm'],
  ],
  // Small pictures, too, which quicker writers refuse.
  av1: (bits, fine) => [
    ...['-c:v', 'libaom-av1', ...(bits ? within(bits) : ['-crf', '26', '-b:v', '0'])],
    ...['-usage', 'realtime', '-cpu-used', '8', '-row-mt', '1'],
    ...['-pix_fmt', pixelsOf(fine), '-f', 'webm'],
  ],
  // Fine ones may take the place of the film: little is lost of them.
  mp4: (bits, fine) => [
    ...['-c:v', 'libx264', '-preset', 'veryfast'],
    ...(bits ? within(bits) : ['-crf', fine ? '10' : '18']),
    ...['-pix_fmt', pixelsOf(fine), '-movflags', '+faststart', '-f', 'mp4'],
  ],
  gif: () => ['-loop', '0', '-f', 'gif'],
  webp: () => ['-c:v', 'libwebp_anim', '-quality', '85', '-loop', '0', '-f', 'webp'],
  apng: () => ['-c:v', 'apng', '-pred', 'mixed', '-plays', '0', '-f', 'apng'],
};

/** What plays where the pictures do. */
const soundEncoders: Partial<Record<ClipFormat, string[]>> = {
  // The other way to choose takes twice as long.
  mp4: ['aac', '-aac_coder', 'fast'],
};
export const encodedSound = (format: ClipFormat, bits: number | null): string[] => [
  ...['-map', '[heard]', '-c:a', ...(soundEncoders[format] ?? ['libopus'])],
  ...['-b:a', String(soundBits(bits))],
];

/** On the whole so many bits a second; for a short while more. */
const within = (bits: number): string[] => [
  ...['-b:v', String(bits), '-maxrate', String(2 * bits), '-bufsize', String(2 * bits)],
];

const spedUp = (speed: number): string => {
  if (speed === 1) return '';
  const fewer = everyOf(speed) > 1 ? `,select=not(mod(n\\,${everyOf(speed)}))` : '';
  return `${fewer},setpts=PTS/${speed}`;
};

/** Exactly the pictures that are kept, one stretch after the other, each with what is heard of it. */
function stretched({ cuts, times }: Source, heard: Heard | null = null): string[] {
  const stretches = playedStretches(cuts, times.length);
  const split = `[0:v]split=${stretches.length}${stretches.map((_, i) => `[s${i}]`).join('')}`;
  const trimmed = stretches.map(
    ({ from, to, speed }, i) =>
      `[s${i}]trim=start_frame=${from}:end_frame=${to},setpts=PTS-STARTPTS${spedUp(speed)}[t${i}]`,
  );
  const { filters = [], names = [] } = heard ? heardStretches('[0:a]', heard) : {};
  const parts = stretches.map((_, i) => `[t${i}]${names[i] ?? ''}`).join('');
  const joined = `${parts}concat=n=${stretches.length}:v=1${heard ? ':a=1[k][heard]' : '[k]'}`;
  return [split, ...trimmed, ...filters, joined];
}

/** One table of colours for all of it: what does not move does not flicker. */
const GIF = 'split[p][q];[p]palettegen=stats_mode=diff[c];[q][c]paletteuse=dither=none';

/** Of two that come within one thousandth of a second neither is lost. */
const EACH = 'settb=1/1000,setpts=if(isnan(PREV_OUTPTS)\\,PTS\\,max(PTS\\,PREV_OUTPTS+1))';

/** Every picture that is kept, to be painted, one after the other: RGBA, or in planes. */
export function pictureArgs(source: Source, inPlanes: InPlanes | null): string[] {
  const { filter, format } = inPlanes ?? { filter: 'format=rgba', format: 'rgba' };
  const graph = [...stretched(source), `[k]${filter}[given]`].join(';');
  return [
    ...[...asFilm(source.path), '-filter_complex', graph, '-map', '[given]'],
    ...['-fps_mode', 'passthrough', '-f', 'rawvideo', '-pix_fmt', format, '-'],
  ];
}

/** What planes are is not said in what comes. */
const toldOf = ({ full, matrix }: Planes): string =>
  `setparams=range=${full ? 'pc' : 'tv'}:colorspace=${spaces[matrix]}`;

/** At full size a row or column too many is left out: every pixel stays itself. */
function sized(from: Size, to: Size, percent: number): string[] {
  if (to.width === from.width && to.height === from.height) return [];
  if (percent === 100 && to.width <= from.width && to.height <= from.height)
    return [`crop=${to.width}:${to.height}:0:0`];
  return [`scale=${to.width}:${to.height}:flags=lanczos`];
}

/** As each of the containers has a place for it. */
const said = (what: 'title' | 'description', words: string | null): string[] =>
  words === null ? [] : ['-metadata', `${what}=${words}`];

/** Nothing of what the film said of itself, and what is let out. */
export const saidArgs = ({
  title,
  description,
}: Pick<Writing, 'title' | 'description'>): string[] => [
  '-map_metadata',
  '-1',
  ...said('title', title),
  ...said('description', description),
];

/**
 * What the program is told, but for where to write.
 * @param from how large its pictures are
 */
export function writingArgs(
  { source, painted, heard }: Given,
  from: Size,
  { format, percent, rate, title, description, bits, fine }: Writing,
): string[] {
  const { planes, opaque = false } = painted ?? {};
  const shaped = [
    ...(planes ? [toldOf(planes)] : []),
    // Of those that come in between, the one that is seen at the moment.
    rate === null ? EACH : `fps=${rate}:round=up`,
    ...sized(from, writtenSize(from, percent, isFilm(format)), percent),
    ...(planes?.full ? ['scale=out_range=tv'] : []),
    ...(planes ? [`format=${pixelsOf(fine)}`] : []),
    ...(opaque && !isFilm(format) ? ['format=rgb24'] : []),
    ...(format === 'gif' ? [GIF] : []),
  ].join(',');
  const given = source
    ? asFilm(source.path)
    : ['-f', 'matroska', '-i', 'pipe:0', ...(heard ? asFilm(heard.path) : [])];
  const graph = source
    ? [...stretched(source, heard), `[k]${shaped}[out]`]
    : [`[0:v]${shaped}[out]`, ...(heard ? heardGraph('[1:a]', heard) : [])];
  // Of what both may have.
  const rest = heard && bits ? Math.max(LEAST_BITS, bits - soundBits(bits)) : bits;
  return [
    ...[...given, '-filter_complex', graph.join(';'), '-map', '[out]'],
    ...(heard ? encodedSound(format, bits) : []),
    ...saidArgs({ title, description }),
    // Every picture at its own time, however uneven: none is dropped, none is shown twice.
    ...(rate === null ? ['-fps_mode', 'passthrough', '-enc_time_base:v', '1:1000'] : []),
    ...encoders[format](rest, fine),
    ...(planes ? colourArgs(planes.matrix) : []),
  ];
}
