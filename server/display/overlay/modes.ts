import type { Size } from '@/core/geometry/size';
import type { XEvent } from 'x11';
import { isShown, type ScreenWindow } from '@/core/contracts/display';
import type { ViewShape } from '@/core/document/viewSchema';
import type { Kind, ShapeName } from '@/core/contracts/way';
import type { Point } from '@/core/geometry/point';
import { centre, type Rect } from '@/core/geometry/rect';
import {
  closeShape,
  dragShape,
  moveShape,
  noShape,
  pressShape,
  releaseShape,
  shapeView,
  takeBack,
  type FreeShape,
} from '@/core/region/freeShape';
import {
  arrowStep,
  dragTo,
  nothingChosen,
  nudge,
  press,
  release,
  type Arrow,
  type Selection,
} from '@/core/region/selection';
import { stepWindow, visiblePart, windowPlace, windowsAt } from '@/core/region/windowChoice';
import { partsAt } from '@/core/screen/parts';
import type { Part } from '@/core/screen/parts/described';
import { ovalPoints } from '@/core/geometry/oval';
import type { Still } from '../still';
import type { Cover } from './cover';

/** What was chosen on the screen itself. */
export interface ScreenChoice {
  kind: Kind;
  crop: Rect;
  shape?: ViewShape;
  window?: ScreenWindow;
  /** What a part is, as its program told. */
  part?: string;
}

export interface Wish {
  /** Letting go of the drag takes at once. */
  atOnce: boolean;
  border: boolean;
  margin: number;
  shape: ShapeName;
}

/** One kind of choosing on the stilled screen. */
export interface Mode {
  show(cover: Cover): void;
  /** The pointer did something. @returns true when that takes what is chosen */
  point(event: XEvent, at: Point): boolean;
  /** @param fine the arrow changes the far sides rather than the place */
  arrow(key: Arrow, by: 1 | 10, fine: boolean): void;
  back?(): void;
  /** The wheel or a key: outward (1) or inward (−1). */
  step?(by: 1 | -1): void;
  /** @returns null while nothing whole is chosen */
  take(): ScreenChoice | null;
}

/** How near counts as touching, in pixels of the screen. */
const REACH = 8;
const SHIFT = 1;
const LOOP_REACH = 10;

const size = (r: Rect | null | undefined): string => (r ? `${r.width} x ${r.height}` : '');

/** A whole display, or all of them. */
export class FullMode implements Mode {
  constructor(private readonly crop: Rect) {}

  show(cover: Cover): void {
    cover.outline(this.crop, size(this.crop));
  }

  point(event: XEvent): boolean {
    return event.name === 'ButtonRelease';
  }

  arrow(): void {
    // A whole display has nothing to adjust.
  }

  take(): ScreenChoice {
    return { kind: 'full', crop: this.crop };
  }
}

/** The last row and column of a screen can be pointed at; what is drawn up to there ends behind them. */
const outermost = ({ x, y }: Point, { width, height }: Size): Point => ({
  x: x >= width - 1 ? width : x,
  y: y >= height - 1 ? height : y,
});

export class RegionMode implements Mode {
  private selection: Selection;

  constructor(
    private readonly still: Still,
    private readonly wish: Wish,
    private readonly oval = false,
  ) {
    this.selection = nothingChosen({ width: still.width, height: still.height });
  }

  show(cover: Cover): void {
    const { region } = this.selection;
    if (this.oval && region) cover.path(ovalPoints(region), true, size(region));
    else cover.outline(region, size(region));
  }

  point(event: XEvent, pointer: Point): boolean {
    const at = outermost(pointer, this.still);
    if (event.name === 'ButtonPress') this.selection = press(this.selection, at, REACH);
    else if (event.name === 'MotionNotify') {
      if (!this.selection.drag) return false;
      const ratio = (event.buttons & SHIFT) !== 0;
      this.selection = dragTo(this.selection, at, { ratio });
    } else if (event.name === 'ButtonRelease') {
      const drawn = this.selection.drag?.kind === 'draw' && this.selection.region;
      this.selection = release(this.selection);
      return Boolean(drawn) && this.wish.atOnce;
    }
    return false;
  }

  arrow(key: Arrow, by: 1 | 10, fine: boolean): void {
    this.selection = nudge(this.selection, key, by, fine);
  }

  take(): ScreenChoice | null {
    const { region } = this.selection;
    if (!region) return null;
    return this.oval
      ? { kind: 'shape', crop: region, shape: { kind: 'oval' } }
      : { kind: 'region', crop: region };
  }
}

export class WindowMode implements Mode {
  private window: ScreenWindow | undefined;
  private readonly windows: readonly ScreenWindow[];

  constructor(
    private readonly still: Still,
    private readonly wish: Wish,
  ) {
    this.windows = still.windows.filter(
      (w) => isShown(w) && visiblePart(windowPlace(w, wish), still),
    );
    const { pointer } = still;
    this.window = pointer ? windowsAt(this.windows, pointer)[0] : this.windows.at(-1);
  }

  show(cover: Cover): void {
    const place = this.take()?.crop ?? null;
    cover.outline(place, this.window ? `${this.window.title}  ${size(place)}` : '');
  }

  point(event: XEvent, at: Point): boolean {
    this.window = windowsAt(this.windows, at)[0] ?? this.window;
    return event.name === 'ButtonRelease';
  }

  arrow(key: Arrow): void {
    this.step(key === 'ArrowLeft' || key === 'ArrowUp' ? -1 : 1);
  }

  step(by: 1 | -1): void {
    this.window = stepWindow(this.windows, this.window?.id ?? null, by);
  }

  take(): ScreenChoice | null {
    const { window } = this;
    const crop = window && visiblePart(windowPlace(window, this.wish), this.still);
    return crop ? { kind: 'window', crop, window } : null;
  }
}

/** Region is the third of the kinds that number keys choose. */
const NO_PART = 'No part here. Move on, or press 3 for a region.';

export class PartMode implements Mode {
  private at: Point;
  private level = 0;

  constructor(
    still: Still,
    private readonly parts: readonly Part[],
  ) {
    this.at = still.pointer ?? centre({ x: 0, y: 0, width: still.width, height: still.height });
  }

  private chain(): Part[] {
    return partsAt(this.parts, this.at);
  }

  show(cover: Cover): void {
    const part = this.chain()[this.level];
    if (part) cover.outline(part, [part.words, size(part)].filter(Boolean).join('  '));
    else cover.note(this.at, NO_PART);
  }

  point(event: XEvent, at: Point): boolean {
    const before = this.chain()[0];
    this.at = at;
    if (this.chain()[0] !== before) this.level = 0;
    return event.name === 'ButtonRelease';
  }

  arrow(key: Arrow): void {
    this.step(key === 'ArrowUp' || key === 'ArrowRight' ? 1 : -1);
  }

  step(by: 1 | -1): void {
    this.level = Math.min(Math.max(0, this.level + by), Math.max(0, this.chain().length - 1));
  }

  take(): ScreenChoice | null {
    const part = this.chain()[this.level];
    if (!part) return null;
    const { words, ...crop } = part;
    return { kind: 'part', crop, ...(words && { part: words }) };
  }
}

/** A loop by hand or a polygon by clicks. */
export class ShapeMode implements Mode {
  private shape: FreeShape;

  constructor(
    private readonly still: Still,
    private readonly wish: Wish,
    kind: FreeShape['kind'],
  ) {
    this.shape = noShape({ width: still.width, height: still.height }, kind);
  }

  show(cover: Cover): void {
    cover.path(this.shape.points, this.shape.closed, size(shapeView(this.shape)?.crop));
  }

  point(event: XEvent, pointer: Point): boolean {
    const at = outermost(pointer, this.still);
    if (event.name === 'ButtonPress') this.shape = pressShape(this.shape, at, LOOP_REACH);
    else if (event.name === 'MotionNotify') this.shape = dragShape(this.shape, at, LOOP_REACH);
    else {
      const drawn = this.shape.drag?.kind === 'draw';
      this.shape = releaseShape(this.shape);
      return drawn && this.shape.closed && this.wish.atOnce;
    }
    return false;
  }

  arrow(key: Arrow, by: 1 | 10): void {
    if (this.shape.points.length > 0) this.shape = moveShape(this.shape, arrowStep(key, by));
  }

  back(): void {
    this.shape = takeBack(this.shape);
  }

  take(): ScreenChoice | null {
    if (!this.shape.closed) {
      this.shape = closeShape(this.shape);
      // Closing can be looked at first; the next Enter takes.
      if (!this.wish.atOnce) return null;
    }
    const view = shapeView(this.shape);
    return view ? { kind: 'shape', ...view } : null;
  }
}
