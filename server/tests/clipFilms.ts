import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { randomFrom } from '@/core/random/random';

/** Small films whose every picture says which one it is, and reading that off again. */
export const WIDTH = 160;
export const HEIGHT = 96;
/** Squares in a row, black or white: a number in binary that any codec leaves readable. */
const BITS = 10;
const SIDE = WIDTH / BITS;

function numbered(number: number): Buffer {
  const picture = Buffer.alloc(3 * WIDTH * HEIGHT, 60);
  for (let y = 0; y < 48; y += 1)
    for (let x = 0; x < WIDTH; x += 1) {
      const bit = (number >> Math.floor(x / SIDE)) & 1;
      picture.fill(bit ? 255 : 0, 3 * (y * WIDTH + x), 3 * (y * WIDTH + x) + 3);
    }
  return picture;
}

/** Which picture it is, read off the middle of each square. @param rgb of the film's own size */
export function numberOn(rgb: Uint8Array, width = WIDTH, height = HEIGHT, channels = 3): number {
  let number = 0;
  for (let bit = 0; bit < BITS; bit += 1) {
    const x = Math.round(((bit + 0.5) * width) / BITS);
    const at = channels * (Math.round(height / 4) * width + x);
    if ((rgb[at] ?? 0) > 127) number += 1 << bit;
  }
  return number;
}

const clusters = (codec: string, ms: number): string[] =>
  codec === 'uneven' || codec === 'av1' ? [] : ['-live', '1', '-cluster_time_limit', String(ms)];

const containers: Partial<Record<string, string>> = { vp9: 'webm', av1: 'webm', uneven: 'mp4' };

const folder = (): string => mkdtempSync(join(tmpdir(), 'rezzik-film-'));

/** No key picture but when its turn comes. */
const EVEN = ['-sc_threshold', '0'];

/** A film as recorders write it: no length, nothing to go by. */
export function film(
  count: number,
  codec: 'h264' | 'high' | 'fine' | 'vp9' | 'av1' | 'lossless' | 'halved' | 'uneven' = 'h264',
  /** Of Matroska: so long a cluster is at most, ms. */
  cluster = 5_000,
  /** Changes a picture before it is written. */
  drawn: (picture: Buffer, number: number) => void = () => undefined,
): Buffer {
  const path = join(folder(), 'film.mkv');
  const pictures = Array.from({ length: count }, (_, i) => numbered(i));
  pictures.forEach(drawn);
  const input = Buffer.concat(pictures);
  const codecs = {
    h264: ['-c:v', 'libx264', '-preset', 'ultrafast', '-crf', '18', '-pix_fmt', 'yuv420p'],
    // Of a finer profile, as programs write that have more time.
    high: ['-c:v', 'libx264', '-preset', 'fast', '-bf', '0', ...EVEN, '-pix_fmt', 'yuv420p'],
    // As this computer's screen is recorded.
    fine: [
      ...['-c:v', 'libx264', '-preset', 'ultrafast', '-tune', 'zerolatency', '-crf', '12'],
      ...['-pix_fmt', 'yuv444p', '-colorspace', 'bt709', ...EVEN],
    ],
    lossless: ['-c:v', 'libx264rgb', '-preset', 'ultrafast', '-qp', '0'],
    // Without loss but for colours: four pixels have their mean.
    halved: [
      ...['-vf', 'scale=flags=area', '-c:v', 'libx264', '-preset', 'ultrafast', '-qp', '0'],
      ...['-pix_fmt', 'yuv420p'],
    ],
    // As browsers record: some pictures come right after each other, then none for a while.
    uneven: [
      ...['-c:v', 'libx264', '-preset', 'ultrafast', '-pix_fmt', 'yuv420p'],
      ...['-vf', 'settb=1/16000,setpts=1056*N-1055*eq(mod(N\\,5)\\,4)', '-fps_mode', 'passthrough'],
      ...[
        '-enc_time_base',
        '1:16000',
        '-video_track_timescale',
        '16000',
        '-movflags',
        'empty_moov',
      ],
    ],
    av1: ['-c:v', 'libaom-av1', '-usage', 'realtime', '-cpu-used', '8', '-pix_fmt', 'yuv420p'],
    vp9: [
      '-c:v',
      'libvpx-vp9',
      '-deadline',
      'realtime',
      '-cpu-used',
      '8',
      '-b:v',
      '1M',
      '-pix_fmt',
      'yuv420p',
    ],
  };
  execFileSync(
    'ffmpeg',
    [
      ...['-loglevel', 'error', '-f', 'rawvideo', '-pix_fmt', 'rgb24', '-s', `${WIDTH}x${HEIGHT}`],
      ...['-r', '15', '-i', '-', ...codecs[codec], '-g', '30', ...clusters(codec, cluster)],
      ...['-f', containers[codec] ?? 'matroska', '-y', path],
    ],
    { input },
  );
  return readFileSync(path);
}

/** Of so many pictures, the key ones among which are 0, 30 and 60. */
export const RESTLESS = 75;

/** Something new on every picture, which no packing leaves as it is. */
export function restless(codec: Parameters<typeof film>[1]): Buffer {
  const noise = randomFrom(7);
  return film(RESTLESS, codec, 5_000, (picture) => {
    for (let i = 3 * WIDTH * 60; i < picture.length; i += 1) picture[i] = noise() * 256;
  });
}

/** A film without loss. @param pictures RGBA, 15 of them a second */
export function filmOf(
  pictures: readonly Buffer[],
  size: { width: number; height: number },
): Buffer {
  const path = join(folder(), 'film.mkv');
  execFileSync(
    'ffmpeg',
    [
      ...['-loglevel', 'error', '-f', 'rawvideo', '-pix_fmt', 'rgba'],
      ...['-s', `${size.width}x${size.height}`, '-r', '15', '-i', '-', '-c:v', 'libx264rgb'],
      ...['-preset', 'ultrafast', '-qp', '0', '-f', 'matroska', '-y', path],
    ],
    { input: Buffer.concat(pictures) },
  );
  return readFileSync(path);
}

interface Shown {
  width: number;
  height: number;
  /** RGB or RGBA. */
  pictures: Buffer[];
}

/** The pictures of a file, in order, read by another run of the program. */
export function picturesIn(path: string, channels: 3 | 4 = 3): Shown {
  const told = execFileSync('ffprobe', [
    ...['-loglevel', 'error', '-select_streams', 'v:0', '-of', 'csv=p=0'],
    ...['-show_entries', 'stream=width,height', path],
  ]);
  const [width = 0, height = 0] = told.toString().trim().split(',').map(Number);
  const raw = execFileSync(
    'ffmpeg',
    [
      ...['-loglevel', 'fatal', '-i', path, '-fps_mode', 'passthrough'],
      ...['-f', 'rawvideo', '-pix_fmt', channels === 3 ? 'rgb24' : 'rgba', '-'],
    ],
    { maxBuffer: 500_000_000 },
  );
  const size = channels * width * height;
  const pictures = Array.from({ length: raw.length / size }, (_, i) =>
    raw.subarray(i * size, (i + 1) * size),
  );
  return { width, height, pictures };
}

/** When each picture of a file comes, seconds, and which of them can be begun with. */
export function packetsIn(path: string): { at: number; isKey: boolean }[] {
  const entries = ['-show_entries', 'packet=pts_time,flags', '-of', 'csv=p=0'];
  const asked = ['-loglevel', 'error', '-select_streams', 'v:0', ...entries, path];
  const lines = execFileSync('ffprobe', asked).toString().trim().split('\n');
  return lines.map((line) => ({ at: parseFloat(line), isKey: line.includes('K') }));
}

/** Which pictures a file shows, in order, and of what size. */
export function shownIn(path: string): { numbers: number[]; width: number; height: number } {
  const { width, height, pictures } = picturesIn(path);
  return { width, height, numbers: pictures.map((one) => numberOn(one, width, height)) };
}

/** Sound that goes with a film: a tone at some times, nothing else. */
export interface Tones {
  /** When it sounds, seconds. */
  at: readonly (readonly [from: number, to: number])[];
  /** How long the sound is, seconds. */
  lasts: number;
  codec?: 'libopus' | 'aac' | 'libmp3lame' | 'pcm_s16le' | 'libvorbis';
  /** So much later it begins than the pictures do; before 0 sooner. Seconds. */
  later?: number;
}

/** The same film with sound, as recorders write both. */
export function withTones(bytes: Buffer, { at, lasts, codec, later = 0 }: Tones): Buffer {
  const path = join(folder(), 'silent.mkv');
  writeFileSync(path, bytes);
  const sounds = at.map(([from, to]) => `between(t,${from},${to})`).join('+');
  execFileSync('ffmpeg', [
    ...['-loglevel', 'error', '-i', path, '-itsoffset', String(later), '-f', 'lavfi'],
    ...['-i', `aevalsrc='0.5*sin(2*PI*1000*t)*min(1,${sounds})':s=48000:d=${lasts}`],
    ...['-map', '0:v', '-map', '1:a', '-c:v', 'copy', '-c:a', codec ?? 'libopus'],
    ...['-f', 'matroska', '-y', `${path}.mkv`],
  ]);
  return readFileSync(`${path}.mkv`);
}

/** The sound of a file, 48 000 samples a second of one channel, from −1 to 1. */
export function soundIn(path: string): Float32Array {
  // As players do it: where it begins later than the pictures there is silence before it.
  const even = ['-af', 'aresample=async=1:first_pts=0', '-ac', '1', '-ar', '48000'];
  const raw = execFileSync(
    'ffmpeg',
    ['-loglevel', 'fatal', '-i', path, '-map', '0:a:0', ...even, '-f', 'f32le', '-'],
    { maxBuffer: 500_000_000 },
  );
  return new Float32Array(raw.buffer.slice(raw.byteOffset, raw.byteOffset + raw.length));
}

/** When something is heard, seconds from and to, in steps of 5 ms. */
export function heardIn(path: string): [from: number, to: number][] {
  const samples = soundIn(path);
  const step = 240;
  const loud = Array.from({ length: Math.floor(samples.length / step) }, (_, i) =>
    samples.subarray(i * step, (i + 1) * step).some((one) => Math.abs(one) > 0.15),
  );
  const heard: [number, number][] = [];
  loud.forEach((is, i) => {
    const last = heard.at(-1);
    const [from, to] = [(i * step) / 48_000, ((i + 1) * step) / 48_000];
    if (is && last && from - last[1] < 0.011) last[1] = to;
    else if (is) heard.push([from, to]);
  });
  return heard;
}
