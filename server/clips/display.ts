import type { DisplayClip, DisplayRecording, Recording } from '@/core/contracts/clip';
import type { Point } from '@/core/geometry/point';
import { contains, type Rect } from '@/core/geometry/rect';
import { Fault, notFound } from '../base/fault';
import { shared } from '../base/shared';
import { allowedScreen, byPortal, checkAllowed } from '../display/access';
import { hearLock } from '../display/held/locked';
import type { Screen } from '../display/connection';
import { readAround, screenSize, type Around } from '../display/still';
import { needFfmpeg } from '../media/ffmpeg';
import { getSettings } from '../settings/settings';
import { noteHand, noteWindow, type Noting } from './noted';
import { addPiece, beginRecording, endRecording, stillRecorded } from './recordings';
import { ScreenFilm } from './screenFilm';

/** What has come is put on the disk so often, ms. */
const OFTEN = 500;
/** Nobody looks at it any more: every page was closed for so long, ms. */
const UNWATCHED = 150_000;
const LOOK = 5_000;
/** The display is gone when it did not answer so often. */
const MISSES = 2;

const ONE = 'This computer’s screen is being recorded already. End that first.';
const BY_PORTAL =
  'This desktop gives one picture at a time. Share the screen with Shared screen to record it.';

/** Records this computer's screen, by the id of the shot that it will be. */
interface Recorder {
  /** What a page that comes later shows of it, but for how it stands. */
  facts: Omit<DisplayRecording, 'seconds' | 'paused'>;
  film: ScreenFilm;
  /** All that came is on the disk. */
  flush: () => Promise<unknown>;
  /** When a page last asked how it stands, by a clock that nobody sets, ms. */
  asked: number;
  /** Ends it. @returns once all that came is on the disk */
  end: () => Promise<void>;
}

const recorders = shared('recorders', () => new Map<string, Recorder>());

/** A page asks how it stands. */
export function noteAsked(shot: string): void {
  const recorder = recorders.get(shot);
  if (recorder) recorder.asked = performance.now();
}

const stateOf = ({ film }: Recorder) => ({ seconds: film.recorded, paused: film.paused });

/** Whoever locks a screen leaves it: nothing is looked at until somebody says that it goes on. */
const pauseAll = (): void => recorders.forEach(({ film }) => void film.pause(true));

/** What is recorded now, for a page that comes later; null where nothing is. */
export function recordedNow(): DisplayRecording | null {
  const [recorder] = recorders.values();
  return recorder ? { ...recorder.facts, ...stateOf(recorder) } : null;
}

/** How far it is, where it is recorded here. */
export const stateHere = (shot: string): Pick<Recording, 'seconds' | 'paused'> => {
  const recorder = recorders.get(shot);
  return recorder ? stateOf(recorder) : {};
};

/** Pauses what is recorded here, or goes on. @throws Fault 404 */
export async function pauseHere(shot: string, paused: boolean): Promise<void> {
  const recorder = recorders.get(shot);
  if (!recorder) throw notFound('recording of this computer’s screen');
  await recorder.film.pause(paused);
  await recorder.flush();
}

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

/**
 * Begins to record this computer's screen.
 * @param watched it ends once every page was closed for a while; else by key, or by its length
 * @throws Fault 403, 409, 501, 503
 */
export async function recordDisplay(
  wish: DisplayClip,
  { watched = true } = {},
): Promise<Recording> {
  await checkAllowed();
  if (await byPortal()) throw new Fault(409, 'no-film', BY_PORTAL);
  if (recorders.size > 0) throw new Fault(409, 'recording', ONE);
  await needFfmpeg();
  const { clipMinutes } = await getSettings();
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
  void hearLock(pauseAll);
  // Two that begin at once: what nothing comes of goes by itself.
  if (recorders.size > 0) throw new Fault(409, 'recording', ONE);
  const { width, height } = part;
  const title = wish.title ?? windowTitle ?? display;
  const { follow } = wish;
  const there = follow && around.found.find(({ id: one }) => one === follow.window)?.bounds;
  // It may have been moved since it was chosen.
  const far = there && { x: there.x - follow.x, y: there.y - follow.y };
  await run(
    { id, title, width, height },
    { screen, part, far, most: 60 * clipMinutes },
    { ...wish, watched },
  );
  return recording;
}

/** What comes is put on the disk, one piece after the other. */
class Pieces {
  private waiting: Buffer[] = [];
  private count = 0;
  private writing = Promise.resolve();

  constructor(
    private readonly shot: string,
    /** A full disk, or a recording that is over: what came until then is kept. */
    private readonly failed: () => void,
  ) {}

  add(piece: Buffer): void {
    this.waiting.push(piece);
  }

  /** @returns how many there are, once all that came is on the disk or cannot be put there */
  async flush(): Promise<number> {
    this.writing = this.writing.then(() => this.write()).catch(() => this.failed());
    await this.writing;
    return this.count;
  }

  private async write(): Promise<void> {
    const bytes = Buffer.concat(this.waiting);
    this.waiting = [];
    if (bytes.length === 0) return;
    await addPiece(this.shot, this.count, bytes);
    this.count += 1;
  }
}

async function run(
  facts: Recorder['facts'],
  { screen, part, far, most }: { screen: Screen; part: Rect; far: Point | undefined; most: number },
  wish: DisplayClip & { watched: boolean },
): Promise<void> {
  const { id: shot } = facts;
  let isAsked = false;
  let hand: Noting | null = null;
  let window: Noting | null = null;
  const close = () => void film.close();
  const pieces = new Pieces(shot, close);
  const film = new ScreenFilm({
    ...{ part, pointer: wish.pointer, most },
    heard: (piece) => pieces.add(piece),
    over: (why) => void over(why),
  });
  let settle = (): void => undefined;
  const settled = new Promise<void>((resolve) => (settle = resolve));
  const flush = () => Promise.all([pieces.flush(), hand?.flush(), window?.flush()]);
  const flushing = setInterval(() => void flush(), OFTEN);
  const watching = setInterval(() => {
    if (wish.watched && performance.now() - recorder.asked > UNWATCHED) close();
    // Nothing comes of it meanwhile, and it is not over.
    else if (film.paused) void stillRecorded(shot).catch(() => undefined);
    void looked();
  }, LOOK);
  let filmed = screen;
  let missed = 0;
  const looked = async () => {
    const now = await allowedScreen().catch((error: unknown) => {
      const isForbidden = error instanceof Fault && error.status === 403;
      // A display that has much to do may be late once.
      missed = isForbidden ? MISSES : missed + 1;
      return null;
    });
    if (!now) return missed < MISSES ? undefined : close();
    missed = 0;
    if (now !== filmed) void film.anew();
    filmed = now;
  };
  const over = async (why: unknown) => {
    clearInterval(flushing);
    clearInterval(watching);
    hand?.stop();
    window?.stop();
    if (why) console.error('The screen is not recorded any more:', why);
    const [count] = await flush();
    recorders.delete(shot);
    settle();
    // One that ends by itself becomes a clip at once, whoever asks for it.
    if (!isAsked) await endRecording(shot, { pieces: count, bin: false }).catch(() => undefined);
  };
  const recorder: Recorder = {
    facts,
    film,
    flush,
    asked: performance.now(),
    end: () => {
      isAsked = true;
      close();
      return settled;
    },
  };
  recorders.set(shot, recorder);
  // The film is more than that.
  hand = await noteHand(shot, film, part, wish).catch((error: unknown) => {
    console.error('Clicks and keys cannot be heard:', error);
    return null;
  });
  const { follow } = wish;
  if (follow && far)
    window = await noteWindow(shot, film, follow.window, far).catch((error: unknown) => {
      console.error('The window cannot be followed:', error);
      return null;
    });
  if (recorders.has(shot)) return;
  hand?.stop();
  window?.stop();
}
