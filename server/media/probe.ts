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

const schema = z.object({
  packets: z
    .array(z.object({ pts_time: seconds.optional(), flags: z.string().default('') }))
    .default([]),
  streams: z
    .array(
      z.object({
        codec_name: z.string().optional(),
        width: z.int().min(1).max(limits.side),
        height: z.int().min(1).max(limits.side),
        pix_fmt: z.string().optional(),
        side_data_list: sidesSchema,
      }),
    )
    .min(1),
  format: z.object({ start_time: seconds.optional() }).default({}),
});

export interface Probed {
  width: number;
  height: number;
  /** As the program calls it: h264, vp9. */
  codec: string;
  /** Of colours as fine as brightness. */
  fineColours: boolean;
  /** When each picture comes, seconds, ascending from 0. */
  times: number[];
}

const PATIENCE = 60_000;

const codecsSchema = z.object({
  streams: z.array(z.object({ codec_name: z.string().optional(), codec_type: z.string() })),
});

/**
 * How pictures and sound of a film are packed, as the program calls it; nothing else of it is read.
 */
export async function codecsOf(
  path: string,
  signal?: AbortSignal,
): Promise<{ pictures: string; sound: string | null }> {
  const asked = ['-show_entries', 'stream=codec_name,codec_type', '-of', 'json'];
  const told = await ffprobe([...asked, ...asFilm(path)], { most: PATIENCE, signal });
  const { streams } = codecsSchema.parse(JSON.parse(told.toString('utf8')));
  const first = (type: string) => streams.find((stream) => stream.codec_type === type);
  const sound = first('audio');
  return {
    pictures: first('video')?.codec_name ?? 'unknown',
    sound: sound ? (sound.codec_name ?? 'unknown') : null,
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
  ...['packet=pts_time,flags', 'stream=codec_name,width,height,pix_fmt'],
  ...['stream_side_data=rotation', 'format=start_time'],
].join(':');

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
  const all = read.data.packets
    .flatMap(({ pts_time: at, flags }) => (flags.includes('D') ? [] : (at ?? [])))
    .sort((a, b) => a - b);
  if (all.length === 0) throw new Fault(422, 'empty-film', 'There is no picture in this film.');
  const lasts = (all.at(-1) ?? 0) - (all[0] ?? 0);
  const isLarge = stream.width * stream.height > clipLimits.pixels;
  if (all.length > clipLimits.pictures || lasts > 2 * clipLimits.seconds || isLarge)
    throw new Fault(
      413,
      'too-large',
      'A clip has at most twenty minutes, 60 000 pictures, and 36 million pixels a picture.',
    );
  // What is asked for by a moment is counted from where the file says that it begins.
  const start = read.data.format.start_time ?? all[0] ?? 0;
  // Whatever reads its pictures turns them.
  const lies = turnOf(stream.side_data_list) % 180 !== 0;
  return {
    width: lies ? stream.height : stream.width,
    height: lies ? stream.width : stream.height,
    codec: stream.codec_name ?? 'unknown',
    fineColours: /444|rgb|gbr|bgr/.test(stream.pix_fmt ?? ''),
    times: all.map((at) => Math.max(0, Math.round((at - start) * 1e6) / 1e6)),
  };
}
