import x11, {
  type Composite,
  type Display,
  type Extension,
  type Fixes,
  type SharedMemory,
  type XClient,
} from 'x11';
import type { PixelLayout } from '@/core/screen/pixels';
import { Fault } from '../base/fault';
import { memoryFiles } from './memory';
import { shared } from '../base/shared';

/** An open connection to the display, with the extensions the server has. */
export interface Screen {
  name: string;
  X: XClient;
  root: number;
  visual: number;
  width: number;
  height: number;
  depth: number;
  layout: PixelLayout;
  /** How pixels of a depth and visual are laid out; null when the display does not say. */
  layoutOf: (depth: number, visual: number) => PixelLayout | null;
  fixes: Fixes | null;
  composite: Composite | null;
  randr: Extension | null;
  /** Memory that the X server writes pixels into; null where it is none of ours, as on another machine. */
  shm: SharedMemory | null;
  keycodes: { first: number; last: number };
}

export const unavailable = (message: string): Fault => new Fault(503, 'no-display', message);

/** How long a display may take to answer, ms: nobody waits longer to hear that it does not. */
const PATIENCE = 2300;
/** An answer may have come while this process was busy: it is looked for once more. */
const LAST_LOOK = 200;

type Request<T> = (done: (error: Error | null | undefined, value: T) => boolean) => void;

/**
 * One request and its answer. The package wants an error marked as seen by a true result.
 * @throws Fault 503 when there is none: the connection is given up, so that the next is a new one
 */
export function ask<T>(request: Request<T>): Promise<T> {
  return new Promise((resolve, reject) => {
    const giveUp = () => {
      closeScreen();
      reject(silent());
    };
    let late = setTimeout(() => (late = setTimeout(giveUp, LAST_LOOK)), PATIENCE);
    request((error, value) => {
      clearTimeout(late);
      if (error) reject(error);
      else resolve(value);
      return true;
    });
  });
}

const silent = (): Fault =>
  unavailable('The display does not answer now. What was taken before is safe; try again soon.');

/** The same, where the answer may be missing: a window may be gone by now. */
export const askMaybe = <T>(request: Request<T>): Promise<T | null> =>
  ask(request).catch((error: unknown) => {
    if (error instanceof Fault) throw error;
    return null;
  });

interface Kept {
  screen: { name: string; opening: Promise<Screen> } | null;
}
const kept = shared<Kept>('screen', () => ({ screen: null }));

/** The connection to a display, opened when first needed and again after it was lost. @throws Fault 503 */
export function screen(name: string): Promise<Screen> {
  const { screen: current } = kept;
  if (current?.name === name) return current.opening;
  closeScreen();
  const forget = () => {
    if (kept.screen?.opening === opening) kept.screen = null;
  };
  const opening = open(name).then(
    (opened) => {
      // A server that dies may not even say goodbye.
      opened.X.stream.on('close', forget);
      return opened;
    },
    (error: unknown) => {
      forget();
      throw error;
    },
  );
  kept.screen = { name, opening };
  return opening;
}

/** Lets go of the display, so that nothing of ours stays on it. */
export function closeScreen(): void {
  const before = kept.screen;
  kept.screen = null;
  void before?.opening.then(({ X }) => X.terminate()).catch(() => undefined);
}

async function open(name: string): Promise<Screen> {
  const display = await connect(name);
  const { client: X } = display;
  // Errors that belong to no request: a window closed in between. The next request says what matters.
  X.on('error', () => undefined);
  const info = infoOf(display);
  const [fixes, composite, randr, shm] = await Promise.all([
    askMaybe<Fixes>((done) => X.require('fixes', done)),
    askMaybe<Composite>((done) => X.require('composite', done)),
    askMaybe<Extension>((done) => X.require('randr', done)),
    usableMemory(X),
  ]);
  const layoutOf = (depth: number, visual: number) => layoutIn(display, info, depth, visual);
  const layout = layoutOf(info.root_depth, info.root_visual);
  if (!layout) throw unavailable('The display does not say how its pixels are laid out.');
  // With this every window keeps its own pixels, also where another lies over it.
  composite?.RedirectSubwindows(info.root, composite.Redirect.Automatic);
  return {
    name,
    X,
    root: info.root,
    visual: info.root_visual,
    width: info.pixel_width,
    height: info.pixel_height,
    depth: info.root_depth,
    layout,
    layoutOf,
    fixes,
    composite,
    randr,
    shm,
    keycodes: { first: display.min_keycode, last: display.max_keycode },
  };
}

async function usableMemory(X: XClient): Promise<SharedMemory | null> {
  const shm = await askMaybe<SharedMemory>((done) => X.require('shm', done));
  const isUsable =
    shm && (await ask<boolean>((done) => void shm.usable((_, yes) => done(null, yes))));
  return isUsable ? shm : null;
}

function layoutIn(
  display: Display,
  { depths }: Display['screen'][number],
  depth: number,
  visual: number,
): PixelLayout | null {
  const masks = depths[depth]?.[visual];
  const format = display.format[depth];
  if (!masks || !format) return null;
  return {
    bitsPerPixel: format.bits_per_pixel,
    rowPad: format.scanline_pad,
    red: masks.red_mask,
    green: masks.green_mask,
    blue: masks.blue_mask,
    bigEndian: display.image_byte_order === 1,
  };
}

function infoOf({ screen: all, screenNum }: Display): Display['screen'][number] {
  const info = all[screenNum] ?? all[0];
  if (!info) throw unavailable('The display has no screen.');
  return info;
}

/** A connection for one purpose alone, of whoever ends it with `X.terminate`. @throws Fault 503 */
export async function ownConnection(
  name: string,
): Promise<Pick<Screen, 'X' | 'root' | 'keycodes'>> {
  const display = await connect(name);
  const { client: X, min_keycode: first, max_keycode: last } = display;
  X.on('error', () => undefined);
  return { X, root: infoOf(display).root, keycodes: { first, last } };
}

function connect(name: string): Promise<Display> {
  return new Promise((resolve, reject) => {
    const late = setTimeout(() => reject(silent()), PATIENCE);
    const fail = (error: Error) => {
      clearTimeout(late);
      reject(unavailable(whyNot(name, error)));
      return true;
    };
    const files = memoryFiles();
    try {
      const client = x11.createClient({ display: name, shm: files }, (error, display) => {
        clearTimeout(late);
        if (error) return fail(error);
        // The package has one table of atoms for all connections; every server numbers its own.
        display.client.atoms = { ...display.client.atoms };
        display.client.stream.on('close', files.closeAll);
        resolve(display);
      });
      client.on('error', fail);
    } catch (error) {
      fail(error instanceof Error ? error : new Error(String(error)));
    }
  });
}

/** What a failed connection means, in plain words. */
export function whyNot(name: string, error: Error & { code?: string }): string {
  if (error.code === 'ENOENT' || error.code === 'ECONNREFUSED') {
    return `There is no display ${name} on this computer now. Start Rezzik from the desktop whose screen it should take.`;
  }
  if (
    error.code === 'EACCES' ||
    /authori[sz]ation|not authorized|closed before/i.test(error.message)
  ) {
    return `The display ${name} does not let Rezzik in. Start Rezzik as the person who is logged in there.`;
  }
  return `The display ${name} could not be opened. (${error.message})`;
}
