import { polygonContains } from 'd3-polygon';
import type { ShotDocument } from '../contracts/document';
import { inflate, overlap, type Rect } from '../geometry/rect';
import type { HideArea, Patch, PaintTools, Scene } from '../marks/contract';
import { hiddenPixels } from '../marks/hide/looks';
import { blotOut, surroundOf } from '../marks/hide/surround';
import { kindOf, markBounds, type Mark } from '../marks/registry';
import { maskOf, widened, type Mask } from '../raster/mask';
import type { RgbaPixels } from '../raster/pixels';
import { heldPixels } from '../raster/png';
import { turnReach } from '../shot/turn';
import { HALO } from './haloSurface';
import { paintMark } from './paintMark';
import type { Surface } from './surface';

/** What a scene is made of. */
export interface Sources {
  marks: readonly Mark[];
  view: ShotDocument['view'];
  /** Draws the frame in frame coordinates, at least the view; the same function for the same frame. */
  drawFrame: (this: void, surface: Surface) => void;
  tools: PaintTools;
  /** What the document holds for its pieces. */
  pictures: ShotDocument['pictures'];
}

interface Hidden {
  mark: Mark;
  area: HideArea;
  mask: Mask;
}

/**
 * What marks may know of the picture they are painted on. Hidden areas are filled first, from what
 * is around all of them, before any mark is painted, and whatever reads pixels reads the picture
 * with these fillings in it: nothing that is hidden can come out again by another mark.
 */
export class PaintScene implements Scene {
  readonly view: Rect;
  private readonly hidden: readonly Hidden[];
  private readonly patches = new Map<string, Patch>();

  constructor(private readonly from: Sources) {
    this.view = from.view.crop;
    const reach = turnReach(from.view.turn);
    this.hidden = from.marks.flatMap((mark) => {
      const area = mark.off ? null : kindOf(mark).hide?.(mark);
      const mask = area && knownMask(mark, area, this.view, reach);
      return mask ? [{ mark, area, mask }] : [];
    });
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
    const pixels =
      area.look.look === 'colour'
        ? { data: new Uint8ClampedArray(at.width * at.height * 4), ...size(at) }
        : this.frame(at);
    const surround = blotOut(at, pixels, this.masks(), this.shows());
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

  private shows(): (x: number, y: number) => boolean {
    const { crop, shape } = this.from.view;
    if (!shape) return () => true;
    if (shape.kind === 'polygon') {
      const points = shape.points.map(({ x, y }): [number, number] => [x, y]);
      return (x, y) => polygonContains(points, [x + 0.5, y + 0.5]);
    }
    const [cx, cy] = [crop.x + crop.width / 2, crop.y + crop.height / 2];
    return (x, y) =>
      ((x + 0.5 - cx) / (crop.width / 2)) ** 2 + ((y + 0.5 - cy) / (crop.height / 2)) ** 2 <= 1;
  }

  private frame(at: Rect): RgbaPixels {
    const { tools, drawFrame } = this.from;
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
      const patch = this.patch(mark.id);
      if (patch) {
        surface.drawImage(this.from.tools.bitmap(patch.pixels), patch.x, patch.y);
      }
    }
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
    const { tools, drawFrame, marks } = this.from;
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

/** Masks of marks that did not change are not rasterised at every repaint. */
const masks = new WeakMap<Mark, { view: Rect; reach: number; mask: Mask | null }>();

function knownMask(mark: Mark, { outline }: HideArea, view: Rect, reach: number): Mask | null {
  const known = masks.get(mark);
  if (known?.view === view && known.reach === reach) return known.mask;
  const mask = widened(maskOf(outline, inflate(view, reach)), reach, view);
  masks.set(mark, { view, reach, mask });
  return mask;
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
