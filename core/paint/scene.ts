import type { ShotDocument } from '../document/document';
import { inflate, overlap, rimOf, type Rect } from '../geometry/rect';
import type { HideArea, Patch, PaintTools, Scene } from '../marks/contract';
import { hiddenPixels } from '../marks/hide/looks';
import { blotOut, surroundOf } from '../marks/hide/surround';
import { kindOf, markBounds, type Mark } from '../marks/registry';
import type { Mask } from '../raster/mask';
import { hiddenOf, type Hidden } from './hidden';
import { layOver, putPixels, type RgbaPixels } from '../raster/pixels';
import { heldPixels } from '../raster/png';
import { turnReach } from '../document/turn';
import { shows } from '../document/viewShape';
import { HALO } from './haloSurface';
import { paintMark } from './paintMark';
import type { Surface } from '../drawing/surface';

/** What a scene is made of. */
export interface Sources {
  marks: readonly Mark[];
  view: ShotDocument['view'];
  /** Draws the frame in frame coordinates, at least the view; the same function for the same frame. */
  drawFrame: (this: void, surface: Surface) => void;
  /** Pixels of a part of it, where they are at hand; else they are drawn and read. */
  readFrame?: (this: void, part: Rect) => RgbaPixels;
  tools: PaintTools;
  /** What the document holds for its pieces. */
  pictures: ShotDocument['pictures'];
  /** Marks under a hand: what lies below them shall be there when they are gone from over it. */
  moving?: ReadonlySet<string>;
}

/**
 * What marks may know of the picture they are painted on. Hidden areas are filled first, from what
 * is around all of them, before any mark is painted, and whatever reads pixels reads the picture
 * with these fillings in it: nothing that is hidden can come out again by another mark.
 */
export class PaintScene implements Scene {
  readonly view: Rect;
  /** What hides something that no other hides above it, the lowest first. */
  private readonly hidden: readonly Hidden[];
  private readonly patches = new Map<string, Patch>();
  private readonly images = new Map<Patch, unknown>();

  constructor(private readonly from: Sources) {
    this.view = from.view.crop;
    this.hidden = hiddenOf(from);
  }

  patch(id: string): Patch | null {
    const had = this.patches.get(id);
    if (had) return had;
    const hidden = this.hidden.find(({ mark }) => mark.id === id);
    if (!hidden) return null;
    const patch = this.made(hidden);
    this.patches.set(id, patch);
    return patch;
  }

  private made({ area, mask }: Hidden): Patch {
    const key = this.keyOf(mask, area);
    const known = remembered(this.from.drawFrame);
    const cached = known.get(key);
    if (cached) return cached;
    const at = surroundOf(mask, this.view);
    const pixels = this.around(at, mask, area.look.look !== 'colour');
    const surround = blotOut(at, pixels, this.masks(), shows(this.from.view));
    const patch = { x: mask.x, y: mask.y, pixels: hiddenPixels(mask, surround, area.look) };
    remember(known, key, patch);
    return patch;
  }

  /** Everything a patch depends on beside the frame's pixels. */
  private keyOf(mask: Mask, area: HideArea): string {
    const near = area.look.look === 'colour' ? null : this.hidden.map(({ area: a }) => a.outline);
    const { crop, shape, turn } = this.from.view;
    return JSON.stringify([area, mask.x, mask.y, near, crop, shape, turnReach(turn)]);
  }

  private masks(): Mask[] {
    return this.hidden.map(({ mask }) => mask);
  }

  /** The frame around a hidden area; what lies under one that leaves nothing free is not read. */
  private around(at: Rect, mask: Mask, isRead: boolean): RgbaPixels {
    if (isRead && !mask.whole) return this.frame(at);
    const pixels = { data: new Uint8ClampedArray(at.width * at.height * 4), ...size(at) };
    if (isRead) {
      for (const rim of rimOf(at, mask)) {
        putPixels(pixels, this.frame(rim), { x: rim.x - at.x, y: rim.y - at.y });
      }
    }
    return pixels;
  }

  private frame(at: Rect): RgbaPixels {
    const { tools, drawFrame, readFrame } = this.from;
    if (readFrame) return readFrame(at);
    const sheet = tools.sheet(at.width, at.height);
    sheet.surface.translate(-at.x, -at.y);
    drawFrame(sheet.surface);
    return sheet.read();
  }

  picture(key: string): RgbaPixels | null {
    const held = this.from.pictures?.[key];
    return held ? heldPixels(held) : null;
  }

  /** Draws the fillings of all hidden areas, but of the one with the id `except`. */
  drawHidden(surface: Surface, { within, except }: { within?: Rect; except?: string } = {}): void {
    for (const { mark, mask } of this.hidden) {
      if (mark.id === except || (within && !overlap(mask, within))) continue;
      this.drawPatch(surface, mark.id);
    }
  }

  /** The same on pixels, which are a part of the frame, and may be those that are read for it. */
  layHidden(pixels: RgbaPixels, part: Rect): void {
    for (const patch of this.hidden.map(({ mark }) => this.patch(mark.id))) {
      if (patch) layOver(pixels, patch.pixels, { x: patch.x - part.x, y: patch.y - part.y });
    }
  }

  drawPatch(surface: Surface, id: string): void {
    const patch = this.patch(id);
    if (!patch) return;
    const image = this.images.get(patch) ?? this.from.tools.bitmap(patch.pixels);
    this.images.set(patch, image);
    surface.drawImage(image, patch.x, patch.y);
  }

  /** Close-ups may lie over close-ups: what each shows is painted once, not anew by all above it. */
  private readonly seen = new Map<string, RgbaPixels>();

  below(id: string, wanted: Rect): RgbaPixels {
    const key = `${id} ${wanted.x} ${wanted.y} ${wanted.width} ${wanted.height}`;
    const known = this.seen.get(key);
    if (known) return known;
    const pixels = this.paintedBelow(id, wanted);
    this.seen.set(key, pixels);
    return pixels;
  }

  private paintedBelow(id: string, wanted: Rect): RgbaPixels {
    const { drawFrame, marks } = this.from;
    // Pixel by pixel and all of it, however the whole is looked at.
    const { sight: _, ...tools } = this.from.tools;
    const { surface, read } = tools.sheet(wanted.width, wanted.height);
    surface.translate(-wanted.x, -wanted.y);
    surface.save();
    surface.beginPath();
    surface.rect(this.view.x, this.view.y, this.view.width, this.view.height);
    surface.clip();
    drawFrame(surface);
    this.drawHidden(surface, { within: wanted });
    for (const mark of marks) {
      if (mark.id === id) break;
      const kind = kindOf(mark);
      if (kind.everywhere || overlap(inflate(markBounds(mark, tools), HALO), wanted)) {
        paintMark(surface, mark, tools, this);
      }
    }
    // Marks below may lie under a hidden area, too.
    this.drawHidden(surface, { within: wanted });
    surface.restore();
    return read();
  }
}

const size = ({ width, height }: Rect) => ({ width, height });

/** Fillings are worked out once for a frame, not at every repaint; the oldest are let go. */
const cache = new WeakMap<object, Map<string, Patch>>();
const MOST_PIXELS = 20_000_000;

function remembered(frame: object): Map<string, Patch> {
  const known = cache.get(frame) ?? new Map<string, Patch>();
  cache.set(frame, known);
  return known;
}

function remember(known: Map<string, Patch>, key: string, patch: Patch): void {
  known.set(key, patch);
  let sum = 0;
  for (const [, { pixels }] of known) sum += pixels.width * pixels.height;
  for (const [oldest, { pixels }] of known) {
    if (sum <= MOST_PIXELS || oldest === key) break;
    sum -= pixels.width * pixels.height;
    known.delete(oldest);
  }
}
