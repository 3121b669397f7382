import { spawn, type ChildProcess } from 'node:child_process';
import { Writable, type Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { env } from '../base/env';
import { Fault } from '../base/fault';
import { onPath } from '../base/onPath';

/** What is missing where no film can be read or written. */
const MISSING =
  'For films Rezzik needs ffmpeg. Install it once with: sudo apt-get install -y ffmpeg';

const missing = (): Fault => new Fault(501, 'no-ffmpeg', MISSING);

/** Before what cannot be done without it is begun. @throws Fault 501 where it is not installed */
export async function needFfmpeg(): Promise<void> {
  if (!(await onPath('ffmpeg'))) throw missing();
}

/** Nothing is read but the file that is named, whatever stands in it. */
const SAFE = ['-nostdin', '-hide_banner', '-protocol_whitelist', 'file,pipe'];
/** Pictures, and sounds. */
const READ = [
  ...['h264', 'vp8', 'vp9', 'av1', 'libdav1d', 'libvpx', 'libvpx-vp9'],
  ...['opus', 'libopus', 'aac', 'vorbis', 'mp3float', 'flac', 'pcm_s16le'],
].join();
/**
 * Before a film that came from elsewhere: it is read as what recorders write and as nothing else,
 * such as a list of other files.
 */
export const asFilm = (path: string): string[] => [
  ...['-format_whitelist', 'matroska,webm,mov,mp4'],
  ...['-codec_whitelist', READ],
  ...['-i', path],
];
/** It is waited for so long after it was asked to end, ms. */
const GENTLE = 3_000;
/** What it ends with then. */
const ASKED_TO_END = 255;
/** Words of the program that are kept for what is said when it fails. */
const MOST_SAID = 4_000;

export interface Run {
  signal?: AbortSignal | undefined;
  /** Ended when it takes longer, ms. */
  most: number;
  /** Hears what it writes to its standard output. */
  heard?: (piece: Buffer) => void;
  /** Hears what it says of what it does. */
  told?: (words: string) => void;
  /** Ends it gently: what it has by then is written, and is no failure. */
  finish?: AbortSignal;
  /** It must keep up with what it reads. */
  eager?: boolean;
  /** Given to its standard input, and the second to `SECOND`. */
  inputs?: readonly AsyncIterable<Uint8Array>[];
}

/** As the program calls what is given to it. */
export const STDIN = 'pipe:0';
export const SECOND = 'pipe:3';

const later = (ms: number, act: () => void): (() => void) => {
  const timer = setTimeout(act, ms);
  return () => clearTimeout(timer);
};

interface Started {
  child: ChildProcess;
  stdout: Readable;
  stderr: Readable;
  /** What is written to it is read by the program, in the order of its inputs. */
  given: readonly Writable[];
  /** What it ended with. */
  closed: Promise<number | null>;
}

/** So gently that a person's work goes before, but what must keep up. */
function started(program: string, args: readonly string[], { eager, inputs = [] }: Run): Started {
  const niceness = String(eager ? 0 : env().filmNiceness);
  const more = inputs.slice(1).map(() => 'pipe' as const);
  const child = spawn('nice', ['-n', niceness, program, ...args], {
    stdio: ['pipe', 'pipe', 'pipe', ...more],
    env: process.env,
  });
  const closed = new Promise<number | null>((resolve, reject) => {
    child.on('error', reject);
    child.on('close', resolve);
  });
  closed.catch(() => undefined);
  const { stdin, stdout, stderr, stdio } = child;
  // Where too many files are open there is nothing to hear it by.
  if (!stdout || !stderr)
    throw new Fault(503, 'no-program', 'No other program can be started now.');
  const given = [stdin, ...stdio.slice(3)].filter((one) => one instanceof Writable);
  return { child, stdout, stderr, given, closed };
}

async function* nothing(): AsyncGenerator<Uint8Array> {}

function throwBroken(broken: { error: unknown } | null): void {
  if (broken) throw broken.error;
}

/**
 * Gives a program its input and waits for its end.
 * @throws Fault 501 where it is not installed, 422 with its words where it fails, AbortError, what
 *   its input throws
 */
async function over(
  { child, stderr, given, closed }: Started,
  { signal, most, finish, told, inputs = [] }: Run,
): Promise<void> {
  let said = '';
  stderr.on('data', (piece: Buffer) => {
    const words = piece.toString('utf8');
    told?.(words);
    said = (said + words).slice(-MOST_SAID);
  });
  let late = false;
  const end = () => child.kill('SIGKILL');
  const inTime = later(most, () => {
    late = true;
    end();
  });
  let harder = (): void => undefined;
  const finishes = () => {
    child.kill('SIGINT');
    harder = later(GENTLE, end);
  };
  signal?.addEventListener('abort', end, { once: true });
  finish?.addEventListener('abort', finishes, { once: true });
  if (signal?.aborted) end();
  try {
    let broken: { error: unknown } | null = null;
    const from = async function* (input: AsyncIterable<Uint8Array>) {
      try {
        yield* input;
      } catch (error) {
        broken = { error };
        // What was given so far must not pass for the whole.
        end();
        throw error;
      }
    };
    // One that ends before it was given all says why itself.
    const all = given.map((to, i) => pipeline(from(inputs[i] ?? nothing()), to));
    await Promise.allSettled(all);
    const code = await closed;
    signal?.throwIfAborted();
    throwBroken(broken);
    if (late) throw new Fault(503, 'too-slow', 'It took longer than Rezzik waits for a film.');
    // As `nice` says that there is no such program.
    if (code === 127) throw missing();
    if (code !== 0 && !(finish?.aborted && code === ASKED_TO_END)) throw new Unreadable(said);
  } finally {
    inTime();
    harder();
    signal?.removeEventListener('abort', end);
    finish?.removeEventListener('abort', finishes);
  }
}

async function ran(program: Started, run: Run): Promise<Buffer> {
  const out: Buffer[] = [];
  program.stdout.on('data', (piece: Buffer) => (run.heard ? run.heard(piece) : out.push(piece)));
  await over(program, run);
  return Buffer.concat(out);
}

export const NO_FILM =
  'This is no film that can be read, or it is damaged. Read are VP8, VP9, AV1 or H.264, with Opus, ' +
  'AAC, Vorbis, MP3, FLAC or PCM, in WebM, MP4 or Matroska.';

/** The program could make nothing of a film. */
export class Unreadable extends Fault {
  constructor(readonly said: string) {
    super(422, 'unreadable-film', NO_FILM);
  }
}

/** @returns what it wrote to its standard output, where nobody else hears it */
export const ffmpeg = async (args: readonly string[], run: Run): Promise<Buffer> =>
  ran(started('ffmpeg', [...SAFE, '-loglevel', 'error', ...args], run), run);

/** What it writes to its standard output, no faster than it is taken. @throws as `ffmpeg` does */
export async function* ffmpegOutput(args: readonly string[], run: Run): AsyncGenerator<Buffer> {
  const program = started('ffmpeg', [...SAFE, '-loglevel', 'error', ...args], run);
  const ended = over(program, run);
  ended.catch(() => undefined);
  try {
    for await (const piece of program.stdout) yield piece as Buffer;
    await ended;
  } finally {
    program.child.kill('SIGKILL');
  }
}

export const ffprobe = async (args: readonly string[], run: Run): Promise<Buffer> =>
  ran(started('ffprobe', [...SAFE.slice(1), '-loglevel', 'error', ...args], run), run);
