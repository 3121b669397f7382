import pLimit from 'p-limit';
import sharp from 'sharp';
import type { ScreenStill } from '@/core/contracts/display';
import type { Size } from '@/core/geometry/size';
import type { Same } from '@/core/held/change';
import { Held, LOOK_BACK } from '@/core/held/held';
import { rowBytes, toRgba } from '@/core/screen/pixels';
import type { Damage, XEvent } from 'x11';
import { askMaybe, unavailable, type Screen } from '../connection';
import { coveredOf } from '../own';
import { readPixmap, type ScreenPixels } from '../pixmap';
import { clearGaps, readAround, screenSize } from '../still';

/** What a moment knows beside its pixels. */
export type MomentFacts = Omit<ScreenStill, 'id' | 'own'>;

/** A moment as it was, whole. */
export interface HeldStill {
  facts: MomentFacts;
  pixels: ScreenPixels;
}

/** Rows of the screen, from … to before …. */
interface Rows {
  from: number;
  to: number;
}

const BYTES = 4;
const INCLUDE_INFERIORS = 1;

/**
 * Looks at a screen a few times a second and holds the last seconds of it. A screen on which nothing
 * is drawn is not read at all (X Damage Extension), of one on which something is, those rows.
 */
export class ScreenWatch {
  readonly #held: Held<MomentFacts>;
  readonly #screen: Screen;
  readonly #damage: Damage;
  #id = 0;
  /** Rows that were drawn on since the last look; null where none was. */
  #drawn: Rows | null = null;
  #size: Size = { width: 0, height: 0 };
  #stilled = false;
  /** Whoever asks for the moments looks too. */
  readonly #inTurn = pLimit(1);
  #over = false;

  private constructor(screen: Screen, damage: Damage, most: number) {
    this.#screen = screen;
    this.#damage = damage;
    this.#held = new Held({ most, longest: LOOK_BACK.longest }, sameBytes);
  }

  /** @throws Fault 503 where the display does not say what is drawn on it */
  static async begin(screen: Screen, most: number): Promise<ScreenWatch> {
    const damage = await askMaybe<Damage>((done) => screen.X.require('damage', done));
    if (!damage) throw unavailable('This display does not tell what changes on it (no X Damage).');
    const watch = new ScreenWatch(screen, damage, most);
    watch.#id = screen.X.AllocID();
    screen.X.on('event', watch.#heard);
    damage.Create(watch.#id, screen.root, damage.ReportLevel.BoundingBox);
    await watch.#look();
    return watch;
  }

  /** Looks again and again. @returns why it is over, when it is */
  async follow(): Promise<string> {
    while (!this.#over) {
      const begun = performance.now();
      try {
        await this.#look();
      } catch (error) {
        void this.end();
        return error instanceof Error ? error.message : String(error);
      }
      const rest = Math.max(20, LOOK_BACK.every - (performance.now() - begun));
      await new Promise((resolve) => setTimeout(resolve, rest));
    }
    return '';
  }

  /** @returns once the connection is closed, which whoever opened it does */
  end(): Promise<void> {
    this.#over = true;
    const { stream } = this.#screen.X;
    this.#screen.X.off('event', this.#heard);
    return new Promise((resolve) => {
      if (stream.destroyed) resolve();
      else stream.on('close', resolve);
    });
  }

  facts(): { reach: number; bytes: number; shortened: boolean } {
    const now = Date.now();
    const [oldest] = this.#held.moments();
    const reach = oldest ? Math.min(LOOK_BACK.longest, now - oldest.since) : 0;
    return { reach, bytes: this.#held.bytes, shortened: this.#held.isShortened(now) };
  }

  /** Oldest first; none comes or goes until it goes on. */
  async moments(): Promise<{ id: number; since: number; until: number | null }[]> {
    await this.#look();
    this.#stilled = true;
    return this.#held.moments().map(({ id, since, until }) => ({ id, since, until }));
  }

  goOn(): void {
    this.#stilled = false;
  }

  /** Null where it was let go. */
  still(id: number): HeldStill | null {
    const moment = this.#held.find(id);
    if (!moment) return null;
    const { facts, pixels } = moment;
    const { width, height, monitors } = facts;
    const bytes = new Uint8Array(pixels.buffer, pixels.byteOffset, pixels.byteLength);
    const data = toRgba(bytes, width, height, this.#screen.layout);
    return { facts, pixels: clearGaps({ data, width, height }, monitors) };
  }

  /** A moment as it is looked at, no wider than so many pixels: a file; null where it was let go. */
  async picture(id: number, width: number): Promise<Uint8Array | null> {
    const still = this.still(id);
    if (!still) return null;
    const { data, ...size } = still.pixels;
    return sharp(data, { raw: { ...size, channels: 4 } })
      .resize({ width, withoutEnlargement: true, kernel: 'mitchell' })
      .flatten({ background: '#000000' })
      .jpeg({ quality: 90, chromaSubsampling: '4:4:4' })
      .toBuffer();
  }

  readonly #heard = (event: XEvent): void => {
    if (event.name !== 'DamageNotify' || event.damage !== this.#id) return;
    const { y, h } = event.area;
    const { from, to } = this.#drawn ?? { from: y, to: y + h };
    this.#drawn = { from: Math.min(from, y), to: Math.max(to, y + h) };
  };

  /** What was drawn since the last look becomes a moment. */
  readonly #look = (): Promise<void> => this.#inTurn(() => this.#lookNow());

  async #lookNow(): Promise<void> {
    if (this.#stilled || this.#over) return;
    const at = Date.now();
    this.#held.forget(at);
    const size = await screenSize(this.#screen);
    const isNew = size.width !== this.#size.width || size.height !== this.#size.height;
    if (!isNew && !this.#drawn) return;
    const all = { from: 0, to: size.height };
    const drawn = isNew || !this.#drawn ? all : this.#drawn;
    const rows = { from: Math.max(0, drawn.from), to: Math.min(size.height, drawn.to) };
    this.#size = size;
    this.#drawn = null;
    if (rows.to <= rows.from) return;
    // Before they are read: what is drawn meanwhile is told anew.
    this.#damage.Subtract(this.#id, 0, 0);
    await this.#add(at, size, rows);
  }

  async #add(at: number, size: Size, rows: Rows): Promise<void> {
    const { X, root, depth, layout } = this.#screen;
    const height = rows.to - rows.from;
    const copy = X.AllocID();
    const gc = X.AllocID();
    X.CreatePixmap(copy, root, depth, size.width, height);
    X.CreateGC(gc, root, { subwindowMode: INCLUDE_INFERIORS, graphicsExposures: 0 });
    X.CopyArea(root, copy, gc, 0, rows.from, 0, 0, size.width, height);
    X.FreeGC(gc);
    try {
      const { found, ...around } = await readAround(this.#screen, size);
      const facts: MomentFacts = {
        ...{ takenAt: new Date(at).toISOString(), ...size, ...around },
        windows: found.map(({ top: _, ...window }) => window),
        covered: coveredOf(found, size).map(({ id }) => id),
      };
      const shape = `${size.width} × ${size.height}`;
      const row = rowBytes(size.width, layout) / BYTES;
      await readPixmap(this.#screen, copy, layout, { ...size, height }, (bytes) =>
        this.#held.add(at, { pixels: wordsIn(bytes), row, shape, from: rows.from * row }, facts),
      );
    } finally {
      X.FreePixmap(copy);
    }
  }
}

/** By the C library, four times as fast as word by word. */
const sameBytes: Same = (a, at, b, bAt, length) =>
  bytesOf(a, at, length).equals(bytesOf(b, bAt, length));

const bytesOf = ({ buffer, byteOffset }: Uint32Array, at: number, length: number): Buffer =>
  Buffer.from(buffer, byteOffset + at * BYTES, length * BYTES);

/** Words begin at every fourth byte of their memory; an answer over the connection may begin anywhere. */
function wordsIn(bytes: Uint8Array): Uint32Array {
  const fits = bytes.byteOffset % BYTES === 0 ? bytes : Uint8Array.from(bytes);
  return new Uint32Array(fits.buffer, fits.byteOffset, fits.byteLength / BYTES);
}
