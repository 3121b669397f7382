import { z } from 'zod';
import { clipLimits } from '@/core/contracts/clip';
import { limits } from '@/core/values/limits';
import { Fault } from '../base/fault';
import { asFilm, ffprobe, NO_FILM, type Run } from './ffmpeg';

const seconds = z.coerce.number().finite();
/** By how much its pictures are to be turned to be seen, as a phone says that was held upright. */
const sidesSchema = z.array(z.object({ rotation: z.number().optional() })).default([]);
const turnOf = (sides: z.output<typeof sidesSchema>): number =>
  sides.find(({ rotation }) => rotation !== undefined)?.rotation ?? 0;

const streamSchema = z.object({
  codec_name: z.string().optional(),
  width: z.int().min(1).max(limits.side),
  height: z.int().min(1).max(limits.side),
  pix_fmt: z.string().optional(),
  side_data_list: sidesSchema,
});
const schema = z.object({
  packets: z
    .array(z.object({ pts_time: seconds.optional(), flags: z.string().default('') }))
    .default([]),
  streams: z.array(streamSchema).min(1),
  format: z.object({ start_time: seconds.optional() }).default({}),
});

/** How the pictures of a film are, all of them. */
export interface Pictures {
  width: number;
  height: number;
  /** As the program calls it: h264, vp9. */
  codec: string;
  /** Of colours as fine as brightness. */
  fineColours: boolean;
}

export interface Probed extends Pictures {
  /** When each picture comes, seconds, ascending from 0. */
  times: number[];
}

const PATIENCE = 60_000;
const STREAM = 'codec_name,width,height,pix_fmt';

function picturesOf(stream: z.output<typeof streamSchema>): Pictures {
  // Whatever reads its pictures turns them.
  const lies = turnOf(stream.side_data_list) % 180 !== 0;
  return {
    width: lies ? stream.height : stream.width,
    height: lies ? stream.width : stream.height,
    codec: stream.codec_name ?? 'unknown',
    fineColours: /444|rgb|gbr|bgr/.test(stream.pix_fmt ?? ''),
  };
}

const codecsSchema = z.object({
  streams: z.array(z.looseObject({ codec_name: z.string().optional(), codec_type: z.string() })),
});

export interface Head {
  /** How pictures and sound are packed, as the program calls it; null where there is no sound. */
  pictures: string;
  sound: string | null;
  /** Null where that is not told. */
  shows: Pictures | null;
}

/** What a film says before its pictures; nothing else of it is read. */
export async function headOf(path: string, signal?: AbortSignal): Promise<Head> {
  const entries = `stream=codec_type,${STREAM}:stream_side_data=rotation`;
  const asked = ['-show_entries', entries, '-of', 'json'];
  const told = await ffprobe([...asked, ...asFilm(path)], { most: PATIENCE, signal });
  const { streams } = codecsSchema.parse(JSON.parse(told.toString('utf8')));
  const first = (type: string) => streams.find((stream) => stream.codec_type === type);
  const [sound, pictures] = [first('audio'), first('video')];
  const { data } = streamSchema.safeParse(pictures);
  return {
    pictures: pictures?.codec_name ?? 'unknown',
    sound: sound ? (sound.codec_name ?? 'unknown') : null,
    shows: data ? picturesOf(data) : null,
  };
}

/** How colours lie in the pictures of a film, as the program calls it. */
export interface Colours {
  /** yuv420p, gbrp. */
  format: string;
  /** tv, pc or unknown. */
  range: string;
  /** bt709, unknown. */
  matrix: string;
}

const named = z.string().default('unknown');
const coloursSchema = z.object({
  streams: z.tuple([z.object({ pix_fmt: named, color_range: named, color_space: named })]),
});

/** @throws Fault 422 for what is no film */
export async function coloursOf(path: string, signal?: AbortSignal): Promise<Colours> {
  const entries = 'stream=pix_fmt,color_range,color_space';
  const asked = ['-select_streams', 'v:0', '-show_entries', entries, '-of', 'json'];
  const told = await ffprobe([...asked, ...asFilm(path)], { most: PATIENCE, signal });
  const [stream] = coloursSchema.parse(JSON.parse(told.toString('utf8'))).streams;
  return { format: stream.pix_fmt, range: stream.color_range, matrix: stream.color_space };
}

const keysSchema = z.object({
  packets: schema.shape.packets,
  streams: z.array(z.object({ side_data_list: sidesSchema })).default([]),
});

/**
 * Which pictures of a film can be begun with, by their numbers.
 * @returns null where pictures are packed in another order than they are seen in, or are turned
 */
export async function keysOf(path: string, signal?: AbortSignal): Promise<Set<number> | null> {
  const entries = 'packet=pts_time,flags:stream_side_data=rotation';
  const asked = ['-select_streams', 'v:0', '-show_entries', entries, '-of', 'json'];
  const told = await ffprobe([...asked, ...asFilm(path)], { most: PATIENCE, signal });
  const read = keysSchema.parse(JSON.parse(told.toString('utf8')));
  if (read.streams.some((stream) => turnOf(stream.side_data_list) !== 0)) return null;
  const packets = read.packets.filter(({ flags }) => !flags.includes('D'));
  const times = packets.map(({ pts_time: at }) => at ?? NaN);
  if (times.some((at, i) => i > 0 && !(at > (times[i - 1] ?? NaN)))) return null;
  return new Set(packets.flatMap(({ flags }, i) => (flags.includes('K') ? [i] : [])));
}

const ENTRIES = [
  ...['packet=pts_time,flags', `stream=${STREAM}`],
  ...['stream_side_data=rotation', 'format=start_time'],
].join(':');

/**
 * What is in a film whose pictures come so.
 * @param shows how they are
 * @param at when each comes, seconds, in any order
 * @param start what the film says that it begins at, where it says so
 * @throws Fault 422 where there is none, 413 for more than a clip may have
 */
export function ofPictures(shows: Pictures, at: readonly number[], start?: number): Probed {
  const all = at.toSorted((a, b) => a - b);
  if (all.length === 0) throw new Fault(422, 'empty-film', 'There is no picture in this film.');
  const lasts = (all.at(-1) ?? 0) - (all[0] ?? 0);
  const isLarge = shows.width * shows.height > clipLimits.pixels;
  if (all.length > clipLimits.pictures || lasts > 2 * clipLimits.seconds || isLarge)
    throw new Fault(
      413,
      'too-large',
      'A clip has at most twenty minutes, 60 000 pictures, and 36 million pixels a picture.',
    );
  // What is asked for by a moment is counted from where the file says that it begins.
  const first = start ?? all[0] ?? 0;
  return { ...shows, times: all.map((one) => Math.max(0, Math.round((one - first) * 1e6) / 1e6)) };
}

/** What is in a film. @throws Fault 422 for what is none, 413 for more than a clip may have */
export async function probe(
  path: string,
  signal?: AbortSignal,
  { eager = false }: Pick<Run, 'eager'> = {},
): Promise<Probed> {
  const asked = [...['-select_streams', 'v:0', '-of', 'json'], ...['-show_entries', ENTRIES]];
  const told = await ffprobe([...asked, ...asFilm(path)], { most: PATIENCE, signal, eager });
  const read = schema.safeParse(JSON.parse(told.toString('utf8')));
  const [stream] = read.data?.streams ?? [];
  if (!read.success || !stream) throw new Fault(422, 'unreadable-film', NO_FILM);
  // What is marked as discarded is no picture that anybody sees.
  const at = read.data.packets.flatMap(({ pts_time, flags }) =>
    flags.includes('D') ? [] : (pts_time ?? []),
  );
  return ofPictures(picturesOf(stream), at, read.data.format.start_time);
}
