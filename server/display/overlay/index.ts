import type { XEvent } from 'x11';
import { isOnStill, kindNames, type Kind } from '@/core/contracts/way';
import { type ThenStep } from '@/core/places/registry';
import type { Rect } from '@/core/geometry/rect';
import { withDescribed, type Part } from '@/core/screen/parts/described';
import { isArrow } from '@/core/region/selection';
import { ask, type Screen } from '../connection';
import { describedOn } from '../described';
import { readKeyboard, type Keyboard } from '../keyboard';
import { run } from '../../pool/pool';
import { inSharedMemory } from '../../base/pieces';
import type { DisplayStill } from '../still';
import { Cover } from './cover';
import {
  FullMode,
  PartMode,
  RegionMode,
  ShapeMode,
  WindowMode,
  type Mode,
  type ScreenChoice,
  type Wish,
} from './modes';
import { personActs } from '../../words/quiet';

export type { ScreenChoice } from './modes';

/** One thing that can be asked for on the screen. */
export interface Offer {
  key: string;
  label: string;
  step: ThenStep;
}

export interface Asked {
  /** What was asked for, where the question was put. */
  steps?: ThenStep[];
}

interface Task {
  /** A kind to choose by, or what is chosen already. */
  start: Kind | ScreenChoice;
  wish: Wish;
  /** What Full screen means. */
  whole: Rect;
  /** Null when nothing is to be asked. */
  offers: readonly Offer[] | null;
  /** How long to wait for mouse and keyboard where another program holds them, ms. */
  patience: number;
}

/** Another program held the mouse or the keyboard all the time. */
export class NothingChosen extends Error {}

/**
 * How long parts are sought while the mouse and the keyboard are held, ms: what is found by then is
 * given; and how long a person waits for that on a machine that has no time even to begin.
 */
const SEEKING = 2_000;
const MOST_SEEKING = 2 * SEEKING;
const SHIFT = 1;
const ALT = 8;
const WHEEL: Record<number, 1 | -1> = { 4: 1, 5: -1 };
const arrows: Record<string, string> = {
  arrowleft: 'ArrowLeft',
  arrowright: 'ArrowRight',
  arrowup: 'ArrowUp',
  arrowdown: 'ArrowDown',
};

/**
 * Shows the stilled picture over everything on the display and lets something be chosen there, by
 * mouse or keyboard, and where asked what happens with it. Number keys change the kind.
 * @returns null when Esc or the other button left it
 * @throws NothingChosen when another program holds the mouse or the keyboard for too long
 */
export async function chooseOnScreen(
  screen: Screen,
  still: DisplayStill,
  task: Task,
): Promise<(ScreenChoice & Asked) | null> {
  const { patience } = task;
  const keyboard = await readKeyboard(screen);
  const cover = new Cover(screen, still);
  try {
    if (!(await cover.open(patience))) throw new NothingChosen();
    return await new Promise((resolve, reject) => {
      const choosing = new Choosing(still, task, keyboard, cover, resolve);
      // One after the other: what is pressed while parts are sought is meant for what comes then.
      let heard = choosing.begin();
      heard.catch(reject);
      cover.listen((event) => {
        // Whoever gives up waits for nothing that is worked out.
        if (choosing.givesUp(event)) return choosing.giveUp();
        heard = heard.then(() => choosing.hear(event));
        heard.catch(reject);
      });
    });
  } finally {
    cover.close();
    // The cover is gone for good before anything else is taken or shown.
    await ask((done) => screen.X.GetInputFocus(done)).catch(() => null);
  }
}

class Choosing {
  private mode: Mode | null = null;
  private chosen: ScreenChoice | null = null;
  private steps: ThenStep[] = [];
  private parts: readonly Part[] | null = null;
  private readonly stopped = new AbortController();

  constructor(
    private readonly still: DisplayStill,
    private readonly task: Task,
    private readonly keyboard: Keyboard,
    private readonly cover: Cover,
    private readonly done: (choice: (ScreenChoice & Asked) | null) => void,
  ) {}

  async begin(): Promise<void> {
    const { start } = this.task;
    if (typeof start === 'string') await this.use(start);
    else this.choose(start);
  }

  private async use(kind: Kind): Promise<void> {
    const mode = await this.modeOf(kind);
    if (this.stopped.signal.aborted) return;
    this.mode = mode;
    mode.show(this.cover);
  }

  private async modeOf(kind: Kind): Promise<Mode> {
    const { still, task } = this;
    const { wish } = task;
    if (kind === 'full') return new FullMode(task.whole);
    if (kind === 'window') return new WindowMode(still, wish);
    if (kind === 'part') {
      this.parts ??= await this.seekParts();
      return new PartMode(still, this.parts);
    }
    if (kind === 'shape' && wish.shape !== 'oval') return new ShapeMode(still, wish, wish.shape);
    return new RegionMode(still, wish, kind === 'shape');
  }

  /** Worked out in a thread, for no longer than a person would wait: the mouse is held meanwhile. */
  private async seekParts(): Promise<readonly Part[]> {
    const described = describedOn(this.still).catch(() => []);
    return withDescribed(await this.findParts(), await described, this.still);
  }

  private async findParts(): Promise<readonly Rect[]> {
    const { data, ...size } = await this.still.pixels();
    const picture = { ...size, data: new Uint8ClampedArray(await inSharedMemory(data)) };
    const signal = AbortSignal.any([this.stopped.signal, AbortSignal.timeout(MOST_SEEKING)]);
    const pixels = picture.width * picture.height;
    return run('parts', { picture, within: SEEKING }, { pixels, signal }).catch(
      (error: unknown) => {
        if (!signal.aborted) throw error;
        return [];
      },
    );
  }

  givesUp(event: XEvent): boolean {
    if (event.name === 'KeyPress') return this.keyboard.nameOf(event.keycode) === 'escape';
    return event.name === 'ButtonPress' && !WHEEL[event.keycode] && event.keycode !== 1;
  }

  /** The mouse and the keyboard are let go at once. */
  giveUp(): void {
    this.stopped.abort();
    this.done(null);
  }

  async hear(event: XEvent): Promise<void> {
    personActs();
    if (this.stopped.signal.aborted) return;
    if (event.name === 'KeyPress') await this.key(event);
    else if (event.name === 'ButtonPress' && WHEEL[event.keycode]) this.wheel(event.keycode);
    else if (!WHEEL[event.keycode] || event.name === 'MotionNotify') this.point(event);
  }

  private point(event: XEvent): void {
    if (!this.mode || this.chosen) return;
    const takes = this.mode.point(event, { x: event.rootx, y: event.rooty });
    this.mode.show(this.cover);
    if (takes) this.take();
  }

  private wheel(button: number): void {
    this.mode?.step?.(WHEEL[button] ?? 1);
    this.mode?.show(this.cover);
  }

  private async key(event: XEvent): Promise<void> {
    const name = this.keyboard.nameOf(event.keycode) ?? '';
    if (this.chosen) this.answer(name, this.chosen);
    else if (name === 'enter') this.take();
    else if (name === 'backspace') this.mode?.back?.();
    else if (name === 'tab') this.mode?.step?.(event.buttons & SHIFT ? -1 : 1);
    else if (arrows[name]) {
      const arrow = arrows[name];
      if (isArrow(arrow)) {
        this.mode?.arrow(arrow, event.buttons & SHIFT ? 10 : 1, (event.buttons & ALT) !== 0);
      }
    } else {
      const kind = kindNames[Number(name) - 1];
      if (kind && kind !== 'repeat' && isOnStill(kind)) await this.use(kind);
    }
    if (!this.chosen && !this.stopped.signal.aborted) this.mode?.show(this.cover);
  }

  private take(): void {
    const choice = this.mode?.take();
    if (choice) this.choose(choice);
  }

  private choose(choice: ScreenChoice): void {
    if (!this.task.offers) this.done(choice);
    else {
      this.chosen = choice;
      this.ask(choice);
    }
  }

  /** The offers with their keys; what is asked for stands in brackets. */
  private ask({ crop }: ScreenChoice): void {
    const words = (this.task.offers ?? []).map(({ key, label, step }) => {
      const said = `${key.toUpperCase()} ${label}`;
      return this.steps.includes(step) ? `[${said}]` : said;
    });
    this.cover.outline(crop, [...words, 'Enter'].join('  '));
  }

  private answer(name: string, chosen: ScreenChoice): void {
    if (name === 'enter') {
      this.done({ ...chosen, steps: this.steps });
      return;
    }
    const offer = this.task.offers?.find((o) => o.key === name);
    if (!offer) return;
    const on = this.steps.includes(offer.step);
    this.steps = on ? this.steps.filter((s) => s !== offer.step) : [...this.steps, offer.step];
    this.ask(chosen);
  }
}
