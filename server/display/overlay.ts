import x11, { type XEvent } from 'x11';
import type { ScreenWindow } from '@/core/contracts/display';
import type { Point } from '@/core/geometry/point';
import type { Rect } from '@/core/geometry/rect';
import {
  dragTo,
  isArrow,
  nothingChosen,
  nudge,
  press,
  release,
  type Arrow,
  type Selection,
} from '@/core/region/selection';
import { stepWindow, visiblePart, windowPlace, windowsAt } from '@/core/region/windowChoice';
import { ask, type Screen } from './connection';
import { readKeyboard, type Keyboard } from './keyboard';
import type { Still } from './still';

/** What was chosen on the screen itself. */
export interface ScreenChoice {
  crop: Rect;
  window?: ScreenWindow;
}

interface Wish {
  kind: 'region' | 'window';
  /** Letting go of the drag takes at once. */
  atOnce: boolean;
  border: boolean;
  margin: number;
}

const SHIFT = 1;
const ALT = 8;
const REACH = 8;
const SAFFRON = 0xf2b233;
const INK = 0x1c2b2a;
const PAPER = 0xfffefa;
const LABEL = { height: 20, letter: 6, above: 24 };

const arrows: Record<string, Arrow> = {
  arrowleft: 'ArrowLeft',
  arrowright: 'ArrowRight',
  arrowup: 'ArrowUp',
  arrowdown: 'ArrowDown',
};

/**
 * Shows the stilled picture over everything on the display and lets a region or window be chosen
 * there, by mouse or keyboard. @returns null when Esc or the other button left it
 */
export async function chooseOnScreen(
  screen: Screen,
  still: Still,
  wish: Wish,
): Promise<ScreenChoice | null> {
  const keyboard = await readKeyboard(screen);
  const cover = new Cover(screen, still);
  try {
    if (!(await cover.open())) {
      throw new Error('Another program holds the mouse or keyboard, so nothing could be chosen.');
    }
    return await new Promise((resolve) => {
      const choosing = new Choosing(still, wish, keyboard, cover, resolve);
      choosing.show();
      cover.listen((event) => choosing.hear(event));
    });
  } finally {
    cover.close();
  }
}

/** A window over the whole screen that shows a pixmap, with an outline on it. */
class Cover {
  private readonly window: number;
  private readonly lines: number;
  private readonly words: number;
  private readonly plain: number;
  private drawn: Rect | null = null;
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
    private readonly still: Still,
  ) {
    const { X } = screen;
    [this.window, this.lines, this.words, this.plain] = [
      X.AllocID(),
      X.AllocID(),
      X.AllocID(),
      X.AllocID(),
    ];
  }

  async open(): Promise<boolean> {
    const { X, root, visual } = this.screen;
    const { width, height, pixmap } = this.still;
    const mask = x11.eventMask;
    const pointer =
      (mask.ButtonPress ?? 4) | (mask.ButtonRelease ?? 8) | (mask.PointerMotion ?? 64);
    X.CreateWindow(this.window, root, 0, 0, width, height, 0, 0, 1, visual, {
      backgroundPixmap: pixmap,
      overrideRedirect: 1,
      eventMask: pointer | (mask.KeyPress ?? 1),
    });
    X.on('event', this.hear);
    X.MapWindow(this.window);
    const font = X.AllocID();
    X.OpenFont(font, 'fixed');
    X.CreateGC(this.lines, this.window, { foreground: SAFFRON, lineWidth: 2 });
    X.CreateGC(this.words, this.window, { foreground: PAPER, background: INK, font });
    X.CreateGC(this.plain, this.window, { foreground: INK });
    const now = 0;
    const held = await Promise.all([
      ask<number>((done) => X.GrabPointer(this.window, 0, pointer, 1, 1, 0, 0, now, done)),
      ask<number>((done) => X.GrabKeyboard(this.window, 0, now, 1, 1, done)),
    ]);
    return held.every((status) => status === 0);
  }

  listen(ear: (event: XEvent) => void): void {
    this.ear = ear;
    for (const event of this.early.splice(0)) ear(event);
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
    const top = r.y > LABEL.above ? r.y - LABEL.above : r.y + 4;
    const text = label.replace(/[^\x20-\x7e]/g, '?').slice(0, 80);
    const width = text.length * LABEL.letter + 12;
    X.PolyFillRectangle(this.window, this.plain, [clip(r.x), clip(top), width, LABEL.height]);
    X.ImageText8(this.window, this.words, r.x + 6, top + 14, text);
  }

  /** The picture again where outline and words were. */
  private restore(r: Rect): void {
    const { X } = this.screen;
    const { pixmap } = this.still;
    const strip = (x: number, y: number, width: number, height: number) => {
      const [left, top] = [Math.max(0, x), Math.max(0, y)];
      X.CopyArea(pixmap, this.window, this.plain, left, top, left, top, width, height);
    };
    strip(r.x - 4, r.y - 4, r.width + 8, 8);
    strip(r.x - 4, r.y + r.height - 4, r.width + 8, 8);
    strip(r.x - 4, r.y - 4, 8, r.height + 8);
    strip(r.x + r.width - 4, r.y - 4, 8, r.height + 8);
    strip(r.x, r.y > LABEL.above ? r.y - LABEL.above : r.y + 4, 520, LABEL.height + 2);
  }

  close(): void {
    const { X } = this.screen;
    X.off('event', this.hear);
    if (X.stream.destroyed) return;
    X.UngrabPointer(0);
    X.UngrabKeyboard(0);
    X.DestroyWindow(this.window);
    for (const gc of [this.lines, this.words, this.plain]) X.FreeGC(gc);
  }
}

/** Lists of rectangles are unsigned on the wire for sizes; places may be just outside. */
const clip = (v: number): number => Math.max(0, Math.round(v));

class Choosing {
  private selection: Selection;
  private window: ScreenWindow | undefined;
  private readonly windows: readonly ScreenWindow[];

  constructor(
    private readonly still: Still,
    private readonly wish: Wish,
    private readonly keyboard: Keyboard,
    private readonly cover: Cover,
    private readonly done: (choice: ScreenChoice | null) => void,
  ) {
    this.selection = nothingChosen({ width: still.width, height: still.height });
    this.windows = still.windows.filter((w) => visiblePart(windowPlace(w, wish), still));
    const { pointer } = still;
    this.window = pointer ? windowsAt(this.windows, pointer)[0] : this.windows.at(-1);
  }

  show(): void {
    const { wish, window } = this;
    if (wish.kind === 'window') {
      const place = window && visiblePart(windowPlace(window, wish), this.still);
      this.cover.outline(place ?? null, window ? `${window.title}  ${size(place)}` : '');
    } else {
      this.cover.outline(this.selection.region, size(this.selection.region));
    }
  }

  hear(event: XEvent): void {
    if (event.name === 'KeyPress') this.key(event);
    else if (event.name === 'ButtonPress' && event.keycode !== 1) this.done(null);
    else if (this.wish.kind === 'window') this.pointWindow(event);
    else this.pointRegion(event);
  }

  private key(event: XEvent): void {
    const name = this.keyboard.nameOf(event.keycode) ?? '';
    if (name === 'escape') this.done(null);
    else if (name === 'enter') this.take();
    else {
      const arrow = arrows[name];
      if (!arrow || !isArrow(arrow)) return;
      if (this.wish.kind === 'window') {
        const by = arrow === 'ArrowLeft' || arrow === 'ArrowUp' ? -1 : 1;
        this.window = stepWindow(this.windows, this.window?.id ?? null, by);
      } else {
        const by = event.buttons & SHIFT ? 10 : 1;
        this.selection = nudge(this.selection, arrow, by, (event.buttons & ALT) !== 0);
      }
      this.show();
    }
  }

  private pointWindow(event: XEvent): void {
    const at: Point = { x: event.rootx, y: event.rooty };
    if (event.name === 'MotionNotify') {
      this.window = windowsAt(this.windows, at)[0] ?? this.window;
      this.show();
    } else if (event.name === 'ButtonRelease') this.take();
  }

  private pointRegion(event: XEvent): void {
    const at: Point = { x: event.rootx, y: event.rooty };
    if (event.name === 'ButtonPress') this.selection = press(this.selection, at, REACH);
    else if (event.name === 'MotionNotify') {
      if (!this.selection.drag) return;
      this.selection = dragTo(this.selection, at, { ratio: (event.buttons & SHIFT) !== 0 });
    } else if (event.name === 'ButtonRelease') {
      const drawn = this.selection.drag?.kind === 'draw' && this.selection.region;
      this.selection = release(this.selection);
      if (drawn && this.wish.atOnce) this.take();
    }
    this.show();
  }

  private take(): void {
    const { wish, window, selection, still } = this;
    if (wish.kind === 'window') {
      const crop = window && visiblePart(windowPlace(window, wish), still);
      if (crop) this.done({ crop, window });
    } else if (selection.region) this.done({ crop: selection.region });
  }
}

const size = (r: Rect | null | undefined): string => (r ? `${r.width} x ${r.height}` : '');
