import {
  clipLimits,
  type DisplayClip,
  type DisplayRecording,
  type Recording,
} from '@/core/contracts/clip';
import { contains, type Rect } from '@/core/geometry/rect';
import { Fault } from '../base/fault';
import { env } from '../base/env';
import { shared } from '../base/shared';
import { allowedScreen, byPortal, checkAllowed } from '../display/access';
import { readAround, screenSize, type Around } from '../display/still';
import { ffmpeg } from '../media/ffmpeg';
import { addPiece, beginRecording, endRecording } from './recordings';

/** Pictures a second, and after how many there is one that can be gone to. */
const RATE = 15;
const KEY_EVERY = 30;
/** What has come is put on the disk so often, ms. */
const OFTEN = 500;
/** Nobody looks at it any more: every page was closed for so long, ms. */
const UNWATCHED = 150_000;
const LOOK = 5_000;

const ONE = 'This computer’s screen is being recorded already. End that first.';
const BY_PORTAL =
  'This desktop gives one picture at a time. Share the screen with Shared screen to record it.';

/** Records this computer's screen, by the id of the shot that it will be. */
interface Recorder {
  /** What a page that comes later shows of it. */
  facts: DisplayRecording;
  /** When a page last asked how it stands. */
  asked: number;
  /** Ends it. @returns once all that came is on the disk */
  end: () => Promise<void>;
}

const recorders = shared('recorders', () => new Map<string, Recorder>());

/** A page asks how it stands. */
export function noteAsked(shot: string): void {
  const recorder = recorders.get(shot);
  if (recorder) recorder.asked = Date.now();
}

/** What is recorded now, for a page that comes later; null where nothing is. */
export const recordedNow = (): DisplayRecording | null => [...recorders.values()][0]?.facts ?? null;

/** Where it is recorded here it ends, and all that came is on the disk. */
export const endHere = async (shot: string): Promise<void> => recorders.get(shot)?.end();

function partOf(display: string, { monitors, pointer }: Around, all: Rect): [Rect, string] {
  if (display === 'all') return [all, 'All displays'];
  const found =
    monitors.find(({ name }) => name === display) ??
    (pointer && monitors.find((monitor) => contains(monitor, pointer))) ??
    monitors.find(({ primary }) => primary) ??
    monitors[0];
  return found ? [found, found.name] : [all, 'Screen'];
}

/** Begins to record this computer's screen. @throws Fault 403, 409, 503 */
export async function recordDisplay(wish: DisplayClip): Promise<Recording> {
  await checkAllowed();
  if (await byPortal()) throw new Fault(409, 'no-film', BY_PORTAL);
  if (recorders.size > 0) throw new Fault(409, 'recording', ONE);
  const screen = await allowedScreen();
  const size = await screenSize(screen);
  const around = await readAround(screen, size);
  const [part, display] = partOf(wish.display, around, { x: 0, y: 0, ...size });
  const windowTitle = around.found.find(({ id }) => id === around.focused)?.title || undefined;
  const id = wish.id.toLowerCase();
  const takenAt = new Date().toISOString();
  const recording = await beginRecording({
    ...{ id, title: wish.title, type: 'video/x-matroska', shown: wish.shown },
    provenance: { source: 'display', takenAt, display, windowTitle },
  });
  // Two that begin at once: what nothing comes of goes by itself.
  if (recorders.size > 0) throw new Fault(409, 'recording', ONE);
  const { width, height } = part;
  const title = wish.title ?? windowTitle ?? display;
  run({ id, title, width, height, since: takenAt }, part, wish.pointer);
  return recording;
}

/** As fine in colour as in brightness, and so often on its way that a crash takes little with it. */
const args = ({ x, y, width, height }: Rect, pointer: boolean): string[] => [
  ...['-f', 'x11grab', '-framerate', String(RATE), '-draw_mouse', pointer ? '1' : '0'],
  ...['-video_size', `${width}x${height}`, '-i', `${env().display ?? ''}+${x},${y}`],
  ...['-t', String(clipLimits.seconds), '-c:v', 'libx264', '-preset', 'ultrafast'],
  ...['-tune', 'zerolatency', '-crf', '12', '-pix_fmt', 'yuv444p', '-threads', '1'],
  ...['-g', String(KEY_EVERY), '-flush_packets', '1', '-cluster_time_limit', '500'],
  ...['-f', 'matroska', 'pipe:1'],
];

function run(facts: DisplayRecording, part: Rect, pointer: boolean): void {
  const { id: shot } = facts;
  const control = new AbortController();
  let waiting: Buffer[] = [];
  let pieces = 0;
  let writing = Promise.resolve();
  let isAsked = false;
  const flush = () => {
    writing = writing.then(async () => {
      const bytes = Buffer.concat(waiting);
      waiting = [];
      if (bytes.length === 0) return;
      await addPiece(shot, pieces, bytes);
      pieces += 1;
    });
    // A full disk, or a recording that is over: what came until then is kept.
    writing.catch(() => control.abort());
  };
  const flushing = setInterval(flush, OFTEN);
  const heard = (piece: Buffer) => void waiting.push(piece);
  const over = ffmpeg(args(part, pointer), {
    ...{ most: 2 * clipLimits.seconds * 1000, signal: control.signal, heard, eager: true },
  })
    .catch((error: unknown) => {
      if (!control.signal.aborted) console.error('The screen is not recorded any more:', error);
    })
    .then(() => {
      flush();
      return writing.catch(() => undefined);
    })
    .finally(() => {
      clearInterval(flushing);
      clearInterval(watching);
      recorders.delete(shot);
    });
  const recorder = {
    facts,
    asked: Date.now(),
    end: () => {
      isAsked = true;
      control.abort();
      return over;
    },
  };
  const watching = setInterval(() => {
    if (Date.now() - recorder.asked > UNWATCHED) control.abort();
  }, LOOK);
  recorders.set(shot, recorder);
  // One that ends by itself becomes a clip at once, whoever asks for it.
  void over
    .then(() => (isAsked ? undefined : endRecording(shot, { pieces, bin: false })))
    .catch(() => undefined);
}
