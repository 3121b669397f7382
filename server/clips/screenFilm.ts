import { clipLimits } from '@/core/contracts/clip';
import type { Rect } from '@/core/geometry/rect';
import { env } from '../base/env';
import { ffmpeg } from '../media/ffmpeg';
import { colourArgs } from './written';

/** Pictures a second, and after how many there is one that can be gone to. */
const RATE = 15;
const KEY_EVERY = 30;
/** What Matroska calls a cluster begins with this (RFC 9559, §5.1.3): before it nothing is a picture. */
const CLUSTER = Buffer.from([0x1f, 0x43, 0xb6, 0x75]);
/** It is looked so often whether something came, ms, and given up after so many looks. */
const LOOK = 1_000;
const PATIENCE = 10;
/** As the program tells when the first picture was taken, seconds since 1970. */
const BEGINS = /, start: (\d+\.\d+)/;

export interface Wish {
  /** Of the display, px. */
  part: Rect;
  pointer: boolean;
  /** It ends by itself when it is so long, seconds. */
  most: number;
  /** Hears the film as it comes. */
  heard: (piece: Buffer) => void;
  /** Hears, with no reason when it was ended, that nothing more comes. */
  over: (why: unknown) => void;
}

/**
 * Pictures come with the time of the computer's clock. Where that was set, the next one follows as if
 * it had not been: none would be taken until the old time is reached again, or for an hour there
 * would be one alone.
 */
const evenly = [
  ...['setpts=', "'if(isnan(PREV_INPTS),PTS,PREV_OUTPTS+"],
  `if(between((PTS-PREV_INPTS)*TB,0,${(LOOK * PATIENCE) / 1000}),PTS-PREV_INPTS,1/${RATE}/TB))'`,
].join('');

/** Where a film does not say how its colours are to be read, players take those of a large one otherwise. */
const fineColours = [
  ...['-vf', `${evenly},scale=out_color_matrix=bt709:out_range=tv`, '-pix_fmt', 'yuv444p'],
  ...colourArgs('bt709'),
];

/** As fine in colour as in brightness, and so often on its way that a crash takes little with it. */
const args = ({ part: { x, y, width, height }, pointer, most }: Wish, before: number): string[] => [
  ...['-loglevel', 'info', '-nostats'],
  ...['-f', 'x11grab', '-framerate', String(RATE), '-draw_mouse', pointer ? '1' : '0'],
  ...['-video_size', `${width}x${height}`, '-i', `${env().display ?? ''}+${x},${y}`],
  ...['-t', String(most - before), '-c:v', 'libx264', '-preset', 'ultrafast'],
  ...['-tune', 'zerolatency', '-crf', '12', '-threads', '1', ...fineColours],
  ...['-g', String(KEY_EVERY), '-flush_packets', '1', '-cluster_time_limit', '500'],
  ...['-output_ts_offset', before.toFixed(3), '-f', 'matroska', 'pipe:1'],
];

/** What goes on between two pauses. */
interface Stretch {
  /** When its first picture was taken, by a clock that nobody sets, ms. */
  begins: number | null;
  /** That is told, or nothing comes of it. */
  told: Promise<void>;
  /** When it was asked for, by the same clock. */
  asked: number;
  /** Ends it; what was taken until then is written. */
  finish: AbortController;
  /** @throws what stood in the way */
  over: Promise<unknown>;
}

/**
 * A film of a part of the display in one stream, with pauses: what is on the screen meanwhile is
 * looked at by nobody. Each stretch is a run of the program; of those after the first one only the
 * pictures are handed on, at times that follow on those before.
 */
export class ScreenFilm {
  /** Seconds of the stretches that have ended. */
  private before = 0;
  private stretch: Stretch | null = null;
  private turn: Promise<void> = Promise.resolve();
  private isClosed = false;

  constructor(private readonly wish: Wish) {
    this.begin();
  }

  get paused(): boolean {
    return this.stretch === null;
  }

  /** Seconds that are recorded. */
  get recorded(): number {
    // Between being asked and the first picture it looks at nothing.
    const begins = this.stretch?.begins ?? null;
    return begins === null ? this.before : this.before + (performance.now() - begins) / 1000;
  }

  /**
   * The moment of the film that a moment of the clock is, seconds; null where it paused then. What
   * was before the first picture is so with it.
   * @returns once it is known when that one was taken, which the program tells some time after it
   */
  async momentOf(at: number): Promise<number | null> {
    const { stretch, before } = this;
    const when = performance.now() - (Date.now() - at);
    if (!stretch || when < stretch.asked) return null;
    await stretch.told;
    return before + Math.max(0, when - (stretch.begins ?? when)) / 1000;
  }

  /** Pauses or goes on; asked for what is so already, nothing is done. */
  pause(paused: boolean): Promise<void> {
    return this.inTurn(async () => {
      if (this.isClosed) return;
      if (paused && this.stretch) await this.end(this.stretch);
      else if (!paused && !this.stretch) this.begin();
    });
  }

  /**
   * Goes on with another connection to the display: of one that is gone the program goes on to hand
   * out the last picture.
   */
  anew(): Promise<void> {
    return this.inTurn(async () => {
      if (this.isClosed || !this.stretch) return;
      await this.end(this.stretch);
      this.begin();
    });
  }

  /** Nothing more comes. @returns once all that came was handed on */
  close(): Promise<void> {
    return this.inTurn(async () => {
      if (this.stretch) await this.end(this.stretch);
      this.tellOver(null);
    });
  }

  /** One after the other: a pause that is being made ends before what comes next begins. */
  private inTurn(act: () => Promise<void>): Promise<void> {
    const now = this.turn.then(act);
    // What failed is said to whoever asked for it, and stands in nobody's way.
    this.turn = now.catch(() => undefined);
    return now;
  }

  private begin(): void {
    const finish = new AbortController();
    const { before } = this;
    const [asked, clock] = [performance.now(), Date.now()];
    let silent = 0;
    const heard = (piece: Buffer) => {
      silent = 0;
      // It is told before anything is written, and both may be read in one turn.
      if (stretch.begins === null) setImmediate(() => begins(performance.now()));
      this.wish.heard(piece);
    };
    let tell = (): void => undefined;
    const told = new Promise<void>((resolve) => (tell = resolve));
    const begins = (at: number) => {
      stretch.begins ??= Math.min(Math.max(at, asked), performance.now());
      tell();
    };
    // A hung one says nothing.
    const looking = setInterval(() => {
      silent += 1;
      if (silent > PATIENCE) void this.close();
    }, LOOK);
    const stretch: Stretch = {
      ...{ asked, begins: null, told, finish },
      over: ffmpeg(args(this.wish, before), {
        ...{ most: 2 * clipLimits.seconds * 1000, finish: finish.signal, eager: true },
        heard: before === 0 ? heard : picturesOf(heard),
        told: (words) => {
          const [, seconds] = BEGINS.exec(words) ?? [];
          if (seconds) begins(asked + Number(seconds) * 1000 - clock);
        },
      }).finally(() => {
        clearInterval(looking);
        tell();
      }),
    };
    this.stretch = stretch;
    stretch.over.then(
      // It is as long as a clip may be.
      () => this.over(stretch, null),
      (error: unknown) => this.over(stretch, error),
    );
  }

  /** It has ended by itself, unless somebody ended it. */
  private over(stretch: Stretch, why: unknown): void {
    if (this.stretch !== stretch || stretch.finish.signal.aborted) return;
    this.before = this.recorded;
    this.stretch = null;
    this.tellOver(why);
  }

  private tellOver(why: unknown): void {
    if (this.isClosed) return;
    this.isClosed = true;
    this.wish.over(why);
  }

  private async end(stretch: Stretch): Promise<void> {
    stretch.finish.abort();
    await stretch.over.catch(() => undefined);
    this.before = this.recorded;
    this.stretch = null;
  }
}

/** Hands on what comes from the first cluster on. */
function picturesOf(heard: (piece: Buffer) => void): (piece: Buffer) => void {
  let head: Buffer | null = Buffer.alloc(0);
  return (piece) => {
    if (!head) return heard(piece);
    head = Buffer.concat([head, piece]);
    const at = head.indexOf(CLUSTER);
    if (at < 0) return;
    heard(head.subarray(at));
    head = null;
  };
}
