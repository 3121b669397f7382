import type { ShotDocument } from '@/core/document/document';
import { documentAt, isSeenAt } from '@/core/document/atPicture';
import { alsoFollowedBy, followedBy } from '@/core/document/follow';
import type { Shaper } from '@/core/drawing/shaper';
import { paintedParts, type PaintedPart } from '@/core/paint/parts';
import {
  blank,
  bytesOf,
  cut,
  pixelsIn,
  put,
  type ClipPixels,
  type ReadableClip,
} from '../paint/clipPixels';
import { layInk, type Ink } from '@/core/raster/ink';
import { run } from '../pool/pool';
import type { MarkedFilm, Painting } from './painted';

/** What lies on some pictures of a clip. */
interface Seen {
  document: ShotDocument;
  /** Null where all of a picture is painted. */
  parts: readonly PaintedPart[] | null;
  /** What was painted last, and of what: what looks the same is not painted again. */
  last: { of: Uint8Array; made: Promise<ReadableClip> }[];
  /** On how many pictures it was seen so far. */
  count: number;
  /** Of each part, once that is worth while, what lies on it where it is the same on all pictures. */
  inks: Promise<readonly (Ink | null)[]> | null;
}

/** What lies on so many pictures is worth a closer look. */
const OFTEN = 4;
/** So many of these are held. */
const MOST_SEEN = 32;

const same = (a: Uint8Array, b: Uint8Array): boolean =>
  Buffer.from(a.buffer, a.byteOffset, a.length).equals(b);

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
    const step = this.painting.inPlanes?.planes.half ? 2 : 1;
    const parts = paintedParts(document, { shaper: this.shaper }, step);
    const seen: Seen = { document, parts, last: [], count: 0, inks: null };
    this.#seen.set(key, seen);
    return seen;
  }

  /**
   * @param frame as large as the film; what leaves may lie in its place
   * @param picture its number
   * @returns of the same kind, as large as it leaves
   */
  async paint(frame: Buffer, picture: number): Promise<Uint8Array> {
    const { width, height } = this.film;
    const whole = pixelsIn(frame, { width, height }, this.painting.inPlanes?.planes ?? null);
    const seen = this.#seenOn(picture);
    const { parts, document } = seen;
    const { crop } = document.view;
    if (!parts) return bytesOf(await this.#made(seen, 0, whole, null));
    const inks = await this.#inksOf(seen);
    // All is read before anything is painted.
    const pieces = parts.map((part, i) => ({
      ...{ part, ink: inks[i] },
      made: inks[i] ? null : this.#made(seen, i, givenFor(part, whole), part),
    }));
    const isWhole = crop.width === width && crop.height === height;
    const painted = isWhole ? whole : cut(whole, crop);
    for (const { part, ink, made } of pieces) {
      const place = { x: part.part.x - crop.x, y: part.part.y - crop.y };
      if (made) put(painted, await made, place);
      else if (ink && 'planes' in painted) layInk(painted, ink, place);
    }
    return bytesOf(painted);
  }

  /** None at first: what is seen shortly is painted as it is. */
  #inksOf(seen: Seen): Promise<readonly (Ink | null)[]> | readonly (Ink | null)[] {
    seen.count += 1;
    const { inPlanes, signal } = this.painting;
    if (!inPlanes || seen.count < OFTEN) return [];
    const step = inPlanes.planes.half ? 2 : 1;
    const inkOf = async (part: PaintedPart): Promise<Ink | null> =>
      part.mayBeInk
        ? run('clipInk', { part, step }, { pixels: part.needs.width * part.needs.height, signal })
        : null;
    seen.inks ??= Promise.all((seen.parts ?? []).map(inkOf));
    return seen.inks;
  }

  #made(
    { document, last }: Seen,
    place: number,
    given: ClipPixels,
    part: PaintedPart | null,
  ): Promise<ReadableClip> {
    const before = last[place];
    const bytes = bytesOf(given);
    if (before && same(before.of, bytes)) return before.made;
    const { background, signal } = this.painting;
    const asking = { pixels: given.width * given.height, signal };
    const made = part
      ? run('clipPart', { given, part }, asking)
      : run('clipPicture', { frame: given, document, background }, asking);
    // All of a picture lies where another will.
    last[place] = { of: part ? bytes : bytes.slice(), made };
    return made;
  }
}

/** What is read of a picture for a part: nothing of what is hidden, which so may change unnoticed. */
function givenFor({ needs, hidden }: PaintedPart, whole: ClipPixels): ClipPixels {
  const given = cut(whole, needs);
  const parts = hidden.map((one) => ({ ...one, x: one.x - needs.x, y: one.y - needs.y }));
  blank(given, parts);
  return given;
}
