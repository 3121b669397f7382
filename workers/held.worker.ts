import { expose, transfer } from 'comlink';
import { Held, LOOK_BACK, type Shown } from '@/core/held/held';
import type { Moment } from '@/core/held/ring';

/** How the bytes of a video frame are laid out, and what colours they mean. */
interface Layout {
  format: VideoPixelFormat;
  codedWidth: number;
  codedHeight: number;
  colorSpace: VideoColorSpaceInit;
}

/** How holding goes: since when, and in how much memory. */
export interface Holding {
  reach: number;
  bytes: number;
  shortened: boolean;
}

let held: Held<Layout> | null = null;
/** The last frame that came; looked at when it is time for it. */
let pending: { frame: VideoFrame; at: number } | null = null;
let timer: ReturnType<typeof setInterval> | undefined;
let reader: ReadableStreamDefaultReader<VideoFrame> | null = null;
let stilled = false;
let words = new Uint32Array(0);

function letPendingGo(): void {
  pending?.frame.close();
  pending = null;
}

/** Takes every frame the moment it comes: a source that waits for its frames gives no more of them. */
async function follow(mine: ReadableStreamDefaultReader<VideoFrame>): Promise<void> {
  for (;;) {
    const { value: frame, done } = await mine.read();
    if (done || reader !== mine) return frame?.close();
    letPendingGo();
    pending = { frame, at: Date.now() };
  }
}

/** The last frame becomes a moment, where it looks different. */
async function note(): Promise<void> {
  if (!held || stilled) return;
  const mine = held;
  mine.forget(Date.now());
  if (!pending) return;
  const { frame, at } = pending;
  pending = null;
  try {
    const { format, visibleRect, colorSpace } = frame;
    if (!format || !visibleRect) return;
    const size = frame.allocationSize();
    if (words.length !== Math.ceil(size / 4)) words = new Uint32Array(Math.ceil(size / 4));
    await frame.copyTo(new Uint8Array(words.buffer, 0, size));
    const { width: codedWidth, height: codedHeight } = visibleRect;
    const layout = { format, codedWidth, codedHeight, colorSpace: colorSpace.toJSON() };
    // Of the largest plane; where rows are longer, they are so many times as long.
    const row = Math.ceil(codedWidth / 4);
    if (held === mine) mine.add(at, { pixels: words, row, shape: JSON.stringify(layout) }, layout);
  } finally {
    frame.close();
  }
}

async function bitmapOf(moment: Shown<Layout>, width?: number): Promise<ImageBitmap> {
  const { format, codedWidth, codedHeight, colorSpace } = moment.facts;
  const frame = new VideoFrame(moment.pixels, {
    ...{ format, codedWidth, codedHeight, colorSpace, timestamp: 0 },
  });
  try {
    if (!width || width >= codedWidth) return await createImageBitmap(frame);
    return await createImageBitmap(frame, {
      resizeWidth: width,
      resizeHeight: Math.max(1, Math.round((codedHeight * width) / codedWidth)),
      resizeQuality: 'medium',
    });
  } finally {
    frame.close();
  }
}

const worker = {
  /**
   * Holds the last seconds of what is shared, until it ends.
   * @param most bytes
   * @returns when there is no more of it
   */
  async hold(frames: ReadableStream<VideoFrame>, most: number): Promise<void> {
    worker.end();
    held = new Held({ most, longest: LOOK_BACK.longest });
    const mine = frames.getReader();
    reader = mine;
    // One that takes longer than that is the next one's loss, not its hurry.
    timer = setInterval(() => void note().catch(() => undefined), LOOK_BACK.every);
    await follow(mine);
  },

  /** Nothing is held any more. */
  end(): void {
    clearInterval(timer);
    void reader?.cancel().catch(() => undefined);
    letPendingGo();
    reader = null;
    held = null;
    stilled = false;
    words = new Uint32Array(0);
  },

  facts(): Holding {
    const now = Date.now();
    const [oldest] = held?.moments() ?? [];
    return {
      reach: oldest ? Math.min(LOOK_BACK.longest, now - oldest.since) : 0,
      bytes: held?.bytes ?? 0,
      shortened: held?.isShortened(now) ?? false,
    };
  },

  /** Oldest first; none comes or goes until it goes on. */
  async moments(): Promise<Moment<Layout>[]> {
    await note();
    stilled = true;
    return held?.moments() ?? [];
  },

  goOn(): void {
    stilled = false;
  },

  /** The picture of a moment, exact, or so narrow; null when it is gone. */
  async picture(id: number, width?: number): Promise<ImageBitmap | null> {
    const moment = held?.find(id);
    if (!moment) return null;
    const picture = await bitmapOf(moment, width);
    return transfer(picture, [picture]);
  },
};

export type HeldWorker = typeof worker;

expose(worker);
