import type { Point } from '../geometry/point';
import { contains, type Rect } from '../geometry/rect';
import { ovalPath, roundedPath } from '../drawing/paths';
import type { Shaper } from '../drawing/shaper';
import type { Surface } from '../drawing/surface';
import { layoutText, fillText } from '../drawing/textLayout';

/** A place that answers to the pointer. */
export interface HotArea {
  id: string;
  rect: Rect;
  shape: 'arrow' | 'text' | 'hand';
  tooltip?: string;
}

export interface WordLook {
  size?: number;
  colour?: string;
  bold?: boolean;
  fixed?: boolean;
}

/**
 * What is on the desk, as drawing steps and hot areas from back to front. Built from the state
 * alone: hit testing needs no canvas, painting needs no state.
 */
export class DeskLayout {
  private readonly steps: ((surface: Surface, shaper: Shaper) => void)[] = [];
  private readonly areas: HotArea[] = [];
  private origin: Point = { x: 0, y: 0 };
  private scale = 1;
  private clipTo: Rect | null = null;

  /** Adds what `fill` adds, its places counted from `at` in units of `scale` desk pixels. */
  within(at: Point, scale: number, fill: () => void): void {
    const before = { origin: this.origin, scale: this.scale };
    this.origin = at;
    this.scale = scale;
    fill();
    Object.assign(this, before);
  }

  /** Adds what `fill` adds, cut to a rectangle. */
  clipped(r: Rect, fill: () => void): void {
    const to = this.place(r);
    const before = this.clipTo;
    this.clipTo = to;
    this.steps.push((surface) => {
      surface.save();
      surface.beginPath();
      surface.rect(to.x, to.y, to.width, to.height);
      surface.clip();
    });
    fill();
    this.steps.push((surface) => surface.restore());
    this.clipTo = before;
  }

  box(r: Rect, fill: string, radius = 0): void {
    const to = this.place(r);
    const c = radius * this.scale;
    this.steps.push((surface) => {
      surface.fillStyle = fill;
      surface.beginPath();
      roundedPath(surface, to, c);
      surface.fill();
    });
  }

  /** An outline of one unit, drawn inside the rectangle. */
  frame(r: Rect, colour: string, radius = 0): void {
    const w = this.scale;
    const to = this.place(r);
    this.steps.push((surface) => {
      surface.strokeStyle = colour;
      surface.lineWidth = w;
      surface.beginPath();
      const inner = {
        x: to.x + w / 2,
        y: to.y + w / 2,
        width: to.width - w,
        height: to.height - w,
      };
      roundedPath(surface, inner, radius * w);
      surface.stroke();
    });
  }

  oval(r: Rect, fill: string): void {
    const to = this.place(r);
    this.steps.push((surface) => {
      surface.fillStyle = fill;
      surface.beginPath();
      ovalPath(surface, to);
      surface.fill();
    });
  }

  /** A line of words with its top left corner at x, y. */
  words(text: string, x: number, y: number, style: WordLook = {}): void {
    const at = this.place({ x, y, width: 0, height: 0 });
    const size = (style.size ?? 13) * this.scale;
    const weight = style.bold ? 700 : 400;
    const face = style.fixed ? 'fixed' : 'plain';
    this.steps.push((surface, shaper) => {
      const block = layoutText(shaper, text, { face, weight, size });
      fillText(surface, block, at.x, at.y, style.colour ?? '#24302E');
    });
  }

  hot(id: string, r: Rect, shape: HotArea['shape'] = 'arrow', tooltip?: string): void {
    const rect = this.place(r);
    this.areas.push({ id, rect: this.clipTo ? clip(rect, this.clipTo) : rect, shape, tooltip });
  }

  /** The topmost hot area at a place. */
  at(p: Point): HotArea | undefined {
    return this.areas.findLast((area) => contains(area.rect, p));
  }

  area(id: string): HotArea | undefined {
    return this.areas.find((area) => area.id === id);
  }

  paint(surface: Surface, shaper: Shaper): void {
    for (const step of this.steps) step(surface, shaper);
  }

  private place(r: Rect): Rect {
    return {
      x: this.origin.x + r.x * this.scale,
      y: this.origin.y + r.y * this.scale,
      width: r.width * this.scale,
      height: r.height * this.scale,
    };
  }
}

function clip(r: Rect, to: Rect): Rect {
  const x = Math.max(r.x, to.x);
  const y = Math.max(r.y, to.y);
  return {
    x,
    y,
    width: Math.max(0, Math.min(r.x + r.width, to.x + to.width) - x),
    height: Math.max(0, Math.min(r.y + r.height, to.y + to.height) - y),
  };
}
