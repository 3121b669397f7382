import type { ShotDocument } from '@/core/document/document';
import { documentAt, isSeenAt } from '@/core/document/atPicture';
import { alsoFollowedBy, followedBy } from '@/core/document/follow';
import type { Shaper } from '@/core/drawing/shaper';
import { paintedParts, type PaintedPart } from '@/core/paint/parts';
import {
  blackOut,
  cutPixels,
  putPixels,
  type ReadablePixels,
  type RgbaPixels,
} from '@/core/raster/pixels';
import { run } from '../pool/pool';
import type { MarkedFilm, Painting } from './painted';

/** What lies on some pictures of a clip. */
interface Seen {
  document: ShotDocument;
  /** Null where all of a picture is painted. */
  parts: readonly PaintedPart[] | null;
  /** What was painted last, and of what: what looks the same is not painted again. */
  last: { of: Uint8ClampedArray; made: Promise<ReadablePixels> }[];
}

/** So many of these are held. */
const MOST_SEEN = 32;

const same = (a: Uint8ClampedArray, b: Uint8ClampedArray): boolean =>
  Buffer.from(a.buffer, a.byteOffset, a.length).equals(
    Buffer.from(b.buffer, b.byteOffset, b.length),
  );

/** Paints the pictures of a clip as they leave, no more of each than its marks touch. */
export class ClipPainter {
  readonly #seen = new Map<string, Seen>();

  constructor(
    private readonly film: MarkedFilm,
    private readonly painting: Painting,
    private readonly shaper: Shaper,
  ) {}

  /** The same wherever the same marks are seen at the same places. */
  #seenOn(picture: number): Seen {
    const { document: all } = this.film;
    const { follow } = all.view;
    const places = follow ? [followedBy(follow, picture), ...alsoFollowedBy(follow, picture)] : [];
    const marks = all.marks.map((mark) => (isSeenAt(mark, picture) ? '1' : '0')).join('');
    const key = `${marks} ${JSON.stringify(places)}`;
    const known = this.#seen.get(key);
    if (known) return known;
    // Where it follows something, nearly each picture of a drag is another one.
    if (this.#seen.size >= MOST_SEEN) this.#seen.clear();
    const document = documentAt(all, picture, this.film);
    const parts = paintedParts(document, { shaper: this.shaper });
    const seen: Seen = { document, parts, last: [] };
    this.#seen.set(key, seen);
    return seen;
  }

  /**
   * @param frame RGBA, as large as the film; what leaves may lie in its place
   * @param picture its number
   * @returns RGBA, as large as it leaves
   */
  async paint(frame: Buffer, picture: number): Promise<Uint8Array> {
    const { width, height } = this.film;
    const data = new Uint8ClampedArray(frame.buffer as ArrayBuffer, frame.byteOffset, frame.length);
    const whole: RgbaPixels = { data, width, height };
    const seen = this.#seenOn(picture);
    const { parts, document } = seen;
    const { crop } = document.view;
    if (!parts) return bytesOf(await this.#made(seen, 0, whole, null));
    const pieces = parts.map((part, i) => ({
      part,
      made: this.#made(seen, i, givenFor(part, whole), part),
    }));
    const isWhole = crop.width === width && crop.height === height;
    const painted = isWhole ? whole : cutPixels(whole, crop);
    for (const { part, made } of pieces) {
      const { x, y } = part.part;
      putPixels(painted, await made, { x: x - crop.x, y: y - crop.y });
    }
    return bytesOf(painted);
  }

  #made(
    { document, last }: Seen,
    place: number,
    given: RgbaPixels,
    part: PaintedPart | null,
  ): Promise<ReadablePixels> {
    const before = last[place];
    if (before && same(before.of, given.data)) return before.made;
    const { background, signal } = this.painting;
    const asking = { pixels: given.width * given.height, signal };
    const made = part
      ? run('clipPart', { given, part }, asking)
      : run('clipPicture', { frame: given, document, background }, asking);
    // All of a picture lies where another will.
    last[place] = { of: part ? given.data : given.data.slice(), made };
    return made;
  }
}

/** What is read of a picture for a part: nothing of what is hidden, which so may change unnoticed. */
function givenFor({ needs, hidden }: PaintedPart, whole: RgbaPixels): RgbaPixels {
  const given = cutPixels(whole, needs);
  for (const { x, y, width, height } of hidden)
    blackOut(given, { x: x - needs.x, y: y - needs.y, width, height });
  return given;
}

const bytesOf = ({ data }: ReadablePixels): Uint8Array =>
  new Uint8Array(data.buffer, data.byteOffset, data.length);
