import { setTimeout as pause } from 'node:timers/promises';
import x11, { type XEvent } from 'x11';
import type { Point } from '@/core/geometry/point';
import { boundsOf, type Rect } from '@/core/geometry/rect';
import { ask, type Screen } from '../connection';
import type { DisplayStill } from '../still';

const SAFFRON = 0xf2b233;
const INK = 0x1c2b2a;
const PAPER = 0xfffefa;
/** The core font `fixed` is six pixels wide. */
const LABEL = { height: 20, letter: 6, above: 24, letters: 110 };

const mask = x11.eventMask;
const POINTER = (mask.ButtonPress ?? 4) | (mask.ButtonRelease ?? 8) | (mask.PointerMotion ?? 64);

/** While another program holds mouse and keyboard they are asked for this often, ms. */
const LOOK_AGAIN = 50;
const HELD = 'The picture is taken. Close the open menu (Esc), then choose.';

/** Words beside the pointer lie this far to its right. */
const BESIDE = 16;

/** Words in the letters that the core font is sure to have. */
const inAscii = (words: string): string =>
  words
    .replace(/[“”„]/g, '"')
    .replace(/[‘’]/g, "'")
    .replace(/…/g, '...')
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .replace(/[^\x20-\x7e]/gu, '?');

/** A window over the whole screen that shows a pixmap, with an outline on it. */
export class Cover {
  private readonly window: number;
  private readonly lines: number;
  private readonly words: number;
  private readonly plain: number;
  private readonly wide: number;
  private drawn: (Rect & { whole?: boolean }) | null = null;
  private label: Rect | null = null;
  private ear: ((event: XEvent) => void) | null = null;
  /** What came before anybody listened: nobody's first key may be lost. */
  private early: XEvent[] = [];
  private readonly hear = (event: XEvent) => {
    if (event.wid !== this.window) return;
    if (this.ear) this.ear(event);
    else this.early.push(event);
  };

  constructor(
    private readonly screen: Screen,
    private readonly still: DisplayStill,
  ) {
    const { X } = screen;
    [this.window, this.lines, this.words, this.plain, this.wide] = [
      X.AllocID(),
      X.AllocID(),
      X.AllocID(),
      X.AllocID(),
      X.AllocID(),
    ];
  }

  /**
   * Lies over everything and takes hold of mouse and keyboard, as soon as they are free.
   * @param patience how long to wait for that, ms
   * @returns false when they were not
   */
  async open(patience: number): Promise<boolean> {
    const { X, root, visual } = this.screen;
    const { width, height, pixmap } = this.still;
    X.CreateWindow(this.window, root, 0, 0, width, height, 0, 0, 1, visual, {
      backgroundPixmap: pixmap,
      overrideRedirect: 1,
      eventMask: POINTER | (mask.KeyPress ?? 1),
    });
    X.on('event', this.hear);
    X.MapWindow(this.window);
    const font = X.AllocID();
    X.OpenFont(font, 'fixed');
    X.CreateGC(this.lines, this.window, { foreground: SAFFRON, lineWidth: 2 });
    X.CreateGC(this.words, this.window, { foreground: PAPER, background: INK, font });
    X.CreateGC(this.plain, this.window, { foreground: INK });
    X.CreateGC(this.wide, this.window, { foreground: INK, lineWidth: 4 });
    if (await this.grab()) return true;
    return this.wait(patience);
  }

  /** Takes hold of mouse and keyboard, of both or of none. */
  private async grab(): Promise<boolean> {
    const { X } = this.screen;
    const now = 0;
    const held = await Promise.all([
      ask<number>((done) => X.GrabPointer(this.window, 0, POINTER, 1, 1, 0, 0, now, done)),
      ask<number>((done) => X.GrabKeyboard(this.window, 0, now, 1, 1, done)),
    ]);
    if (held.every((status) => status === 0)) return true;
    X.UngrabPointer(now);
    X.UngrabKeyboard(now);
    return false;
  }

  /** Until whoever holds mouse and keyboard, such as an open menu, lets go of them. */
  private async wait(patience: number): Promise<boolean> {
    const { pointer, width, height } = this.still;
    this.note(pointer ?? { x: width / 2, y: height / 2 }, HELD);
    const end = Date.now() + patience;
    while (Date.now() < end) {
      await pause(LOOK_AGAIN);
      if (!(await this.grab())) continue;
      this.outline(null, '');
      // What was pressed meanwhile was meant for the other program.
      this.early = [];
      return true;
    }
    return false;
  }

  listen(ear: (event: XEvent) => void): void {
    this.ear = ear;
    for (const event of this.early.splice(0)) ear(event);
  }

  /** Draws a line through points with words beside it, in place of what was drawn before. */
  path(points: readonly Point[], closed: boolean, label: string): void {
    const { X } = this.screen;
    if (this.drawn) this.restore(this.drawn);
    this.drawn = null;
    const first = points[0];
    if (!first) return;
    const box = boundsOf(points);
    const line = (closed ? [...points, first] : points).flatMap(({ x, y }) => [clip(x), clip(y)]);
    X.PolyLine(0, this.window, this.wide, line);
    X.PolyLine(0, this.window, this.lines, line);
    this.say(box, label);
    this.drawn = { ...box, whole: true };
  }

  /** Draws an outline with its words in place of the one before. */
  outline(r: Rect | null, label: string): void {
    const { X } = this.screen;
    if (this.drawn) this.restore(this.drawn);
    this.drawn = r;
    if (!r) return;
    X.PolyRectangle(
      this.window,
      this.plain,
      [r.x - 2, r.y - 2, r.width + 3, r.height + 3].map(clip),
    );
    X.PolyRectangle(
      this.window,
      this.lines,
      [r.x - 1, r.y - 1, r.width + 1, r.height + 1].map(clip),
    );
    this.say(r, label);
  }

  /** Words at a place, where nothing is outlined. */
  note(at: Point, label: string): void {
    if (this.drawn) this.restore(this.drawn);
    const place = { x: at.x + BESIDE, y: at.y, width: 0, height: 0 };
    this.say(place, label);
    this.drawn = { ...place, whole: true };
  }

  private say(r: Rect, label: string): void {
    if (!label) return;
    const { X } = this.screen;
    const top = r.y > LABEL.above ? r.y - LABEL.above : r.y + 4;
    const text = inAscii(label).slice(0, LABEL.letters);
    const width = text.length * LABEL.letter + 12;
    // Whole, also at the right side of the screen.
    const left = clip(Math.min(r.x, this.still.width - width));
    this.label = { x: left, y: clip(top), width, height: LABEL.height };
    X.PolyFillRectangle(this.window, this.plain, [left, clip(top), width, LABEL.height]);
    X.ImageText8(this.window, this.words, left + 6, clip(top) + 14, text);
  }

  /** The picture again where outline and words were. */
  private restore(r: Rect & { whole?: boolean }): void {
    const { X } = this.screen;
    const { pixmap } = this.still;
    const strip = (x: number, y: number, width: number, height: number) => {
      const [left, top] = [Math.max(0, x), Math.max(0, y)];
      X.CopyArea(pixmap, this.window, this.plain, left, top, left, top, width, height);
    };
    if (this.label) strip(this.label.x, this.label.y, this.label.width, this.label.height);
    this.label = null;
    if (r.whole) {
      strip(r.x - 4, r.y - 4, r.width + 8, r.height + 8);
      return;
    }
    strip(r.x - 4, r.y - 4, r.width + 8, 8);
    strip(r.x - 4, r.y + r.height - 4, r.width + 8, 8);
    strip(r.x - 4, r.y - 4, 8, r.height + 8);
    strip(r.x + r.width - 4, r.y - 4, 8, r.height + 8);
  }

  close(): void {
    const { X } = this.screen;
    X.off('event', this.hear);
    if (X.stream.destroyed) return;
    X.UngrabPointer(0);
    X.UngrabKeyboard(0);
    X.DestroyWindow(this.window);
    for (const gc of [this.lines, this.words, this.plain, this.wide]) X.FreeGC(gc);
  }
}

/** Lists of rectangles are unsigned on the wire for sizes; places may be just outside. */
const clip = (v: number): number => Math.max(0, Math.round(v));
