import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { existsSync, mkdtempSync, readdirSync, readlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import {
  displayStoredSchema,
  type DisplayStored,
  type ScreenWindow,
} from '@/core/contracts/display';
import type { Rect } from '@/core/geometry/rect';
import { XDisplay } from '@/tests/lib/xDisplay';
import { ask, closeScreen, screen } from '../display/connection';
import { takeDisplay } from '../take/takeDisplay';
import { changeSettings } from '../settings/settings';
import { getFrame, getShot } from '../shots/rows';
import { listedWindow } from './listedWindow';
import { begin, finish } from './setup';

/** Whose pixels a window has: its own, whatever lies over it and whoever draws its frame. */

let display: XDisplay;
const size = { width: 1600, height: 1000 };
const folder = mkdtempSync(join(tmpdir(), 'rezzik-own-'));

beforeAll(async () => {
  await begin();
  await changeSettings({ displayAllowed: true });
});
afterAll(finish);

async function open(...wish: string[]): Promise<void> {
  display = await XDisplay.open(size.width, size.height, ...wish);
  process.env.DISPLAY = display.name;
}

async function close(): Promise<void> {
  closeScreen();
  await display.close();
}

const windowOf = (title: string): Promise<ScreenWindow> => listedWindow(display, title);

const take = async (id: number): Promise<DisplayStored> =>
  displayStoredSchema.parse(
    await takeDisplay({ kind: 'window', windowId: id, pointer: false, delay: 0, then: [] }),
  );

/** A shot's view, as RGBA. */
async function pixelsOf({ id }: DisplayStored) {
  const { x: left, y: top, ...extent } = (await getShot(id)).document.view.crop;
  const { bytes } = await getFrame(id);
  const view = sharp(bytes)
    .ensureAlpha()
    .extract({ left, top, ...extent });
  const { data, info } = await view.raw().toBuffer({ resolveWithObject: true });
  const at = (x: number, y: number) => [...data.subarray((y * info.width + x) * 4).subarray(0, 4)];
  return { data, width: info.width, height: info.height, at };
}

const cover = (title: string, where: string) =>
  display.start('xterm', '-title', title, '-bg', '#204030', '-geometry', where, '-e', 'sleep 600');

/** A window that can be transparent, of a program that draws it plain. */
function transparentWindow(title: string, colour: string, place: string): void {
  const file = join(folder, `${title}.tcl`);
  writeFileSync(
    file,
    `wm title . "${title}"\nwm geometry . ${place}\n. configure -background ${colour}\n`,
  );
  display.start('wish', file, '-visual', 'truecolor 32', '-colormap', 'new');
}

describe('under a window manager that does not composite', () => {
  beforeAll(() => open());
  afterAll(close);

  test('a covered window that could be transparent has its own pixels', async () => {
    transparentWindow('Pond map', '#D55E00', '300x200+100+100');
    const { id, bounds, frameBounds } = await windowOf('Pond map');
    expect(await display.run('xwininfo', '-id', String(id))).toMatch('Depth: 32');
    expect((await screen(display.name)).shm).not.toBeNull();
    cover('Lid', '60x30+60+60');
    await windowOf('Lid');
    const stored = await take(id);
    expect(stored.visibleOnly).toBeUndefined();
    const { width, height, at } = await pixelsOf(stored);
    expect({ width, height }).toMatchObject(sizeOf(frameBounds));
    const inside = { x: bounds.x - (frameBounds?.x ?? 0), y: bounds.y - (frameBounds?.y ?? 0) };
    for (const [x, y] of [
      [0, 0],
      [299, 0],
      [150, 100],
      [0, 199],
      [299, 199],
    ] as const)
      expect(at(inside.x + x, inside.y + y)).toEqual([0xd5, 0x5e, 0, 255]);
  });

  test('a window partly off the screen is taken whole, as it is when it is not', async () => {
    display.start('xclock', '-title', 'Tide clock', '-geometry', '240x200+700+100', '-render');
    const { id } = await windowOf('Tide clock');
    const before = await pixelsOf(await take(id));
    await display.run('wmctrl', '-i', '-r', String(id), '-e', '0,1150,-60,-1,-1');
    await until(async () => (await windowOf('Tide clock')).bounds.x > 1100);
    const stored = await take(id);
    const after = await pixelsOf(stored);
    expect([after.width, after.height]).toEqual([before.width, before.height]);
    // All but the hands, which may move on, and the title, which is drawn for the window in use.
    const differ = countDiffering(before, after, { x: 10, y: 40, width: 200, height: 20 });
    expect(differ).toBe(0);
    expect((await getShot(stored.id)).width).toBe(before.width);
  });

  test('what a window manager leaves undrawn around a window is no part of it', async () => {
    display.start('xclock', '-title', 'Bell', '-geometry', '200x160+500+500');
    const { id, bounds } = await windowOf('Bell');
    const edges = ['-f', '_NET_FRAME_EXTENTS', '32c', '-set', '_NET_FRAME_EXTENTS', '0,1,3,0'];
    await display.run('xprop', '-id', String(id), ...edges);
    const { frameBounds } = await windowOf('Bell');
    const { x, y, width, height } = bounds;
    const wanted = { x, y: y - 3, width: width + 1, height: height + 3 };
    expect(frameBounds).toEqual(wanted);
  });

  test('every display has its own names, though another was read before', async () => {
    const first = display;
    const other = await XDisplay.open(640, 480);
    for (let i = 0; i < 3; i += 1) {
      const name = `_BEDS_${i}`;
      await other.run('xprop', '-root', '-f', name, '8s', '-set', name, 'x');
    }
    process.env.DISPLAY = other.name;
    display = other;
    cover('Seed slip', '30x8+40+40');
    expect(await windowOf('Seed slip')).toMatchObject({ title: 'Seed slip', program: 'XTerm' });
    closeScreen();
    display = first;
    process.env.DISPLAY = first.name;
    expect((await windowOf('Bell')).title).toBe('Bell');
    await other.close();
  });
});

describe('under a window manager that composites', () => {
  beforeAll(() => open('xfwm4'));
  afterAll(close);

  test('a window that draws its own frame is taken without its shadow, covered or not', async () => {
    const title = 'Icon Browser';
    display.start('gtk3-icon-browser');
    const { id, bounds, frameBounds } = await windowOf(title);
    const shadow = await display.run('xprop', '-id', String(id), '_GTK_FRAME_EXTENTS');
    const [left = 0, right = 0, above = 0, below = 0] = (/= (.*)/.exec(shadow)?.[1] ?? '')
      .split(', ')
      .map(Number);
    expect(left + right).toBeGreaterThan(10);
    const drawn = await display.window(title);
    if (!drawn) throw new Error('no window');
    const wanted = {
      x: drawn.x + left,
      y: drawn.y + above,
      width: drawn.width - left - right,
      height: drawn.height - above - below,
    };
    expect(bounds).toEqual(wanted);
    expect(frameBounds ?? bounds).toEqual(wanted);
    const free = await pixelsOf(await take(id));
    expect([free.width, free.height]).toEqual([wanted.width, wanted.height]);
    cover('Lid', '40x12+200+200');
    await windowOf('Lid');
    // Within the round corners all is opaque.
    const within = { x: 20, y: 20, width: wanted.width - 40, height: wanted.height - 40 };
    let own = free;
    // Its pictures come one by one, and it looks different once it is not in use.
    await until(async () => {
      const stored = await take(id);
      expect(stored.visibleOnly).toBeUndefined();
      own = await pixelsOf(stored);
      const told = await readWindow(id, drawn);
      const at = (x: number, y: number) => told(x + left, y + above);
      return countDiffering({ at }, own, within) === 0;
    });
    expect([own.width, own.height]).toEqual([wanted.width, wanted.height]);
    // A corner is round: beyond it there is a little shadow, and one sees through.
    expect(own.at(0, 0)[3]).toBeLessThan(100);
    expect(own.at(within.x, within.y)[3]).toBe(255);
  });
});

describe('where windows do not keep their pixels, and no memory is shared', () => {
  const without = ['Composite', 'MIT-SHM'].flatMap((name) => ['-extension', name]);
  beforeAll(() => open('openbox', ...without));
  afterAll(close);

  test('a covered window is taken as far as it is seen, and that is said', async () => {
    display.start('xclock', '-title', 'Bell', '-geometry', '200x160+500+300');
    const { id } = await windowOf('Bell');
    expect((await take(id)).visibleOnly).toBeUndefined();
    cover('Lid', '40x12+480+280');
    await windowOf('Lid');
    expect((await take(id)).visibleOnly).toBe(true);
  });

  test('the screen is read over the connection, to the byte as another program reads it', async () => {
    expect((await screen(display.name)).shm).toBeNull();
    const { id } = await takeDisplay({ kind: 'full', pointer: false, delay: 0, then: [] });
    const { bytes } = await getFrame(id);
    const ours = await sharp(bytes).ensureAlpha().raw().toBuffer();
    expect(ours.equals((await display.pixels()).data)).toBe(true);
  });
});

/** A window's pixels as the X server tells them of the window itself: blue, green, red, alpha. */
async function readWindow(id: number, { width, height }: Rect) {
  const { X } = await screen(display.name);
  const { data } = await ask<{ data: Buffer }>((done) =>
    X.GetImage(2, id, 0, 0, width, height, 0xffffffff, done),
  );
  return (x: number, y: number) => {
    const [blue = 0, green = 0, red = 0, alpha = 0] = data.subarray((y * width + x) * 4);
    return [red, green, blue, alpha];
  };
}

test.each(['lets go of it', 'ends'])(
  'memory that is shared with a display is given back when one %s',
  async (how) => {
    const held = () =>
      readdirSync('/proc/self/fd').filter((fd) => {
        const path = `/proc/self/fd/${fd}`;
        return existsSync(path) && readlinkSync(path).startsWith('/dev/shm/rezzik-');
      }).length;
    await until(() => Promise.resolve(held() === 0));
    await open('');
    await takeDisplay({ kind: 'full', pointer: false, delay: 0, then: [] });
    expect(held()).toBe(1);
    if (how === 'ends') await display.close();
    else closeScreen();
    await until(() => Promise.resolve(held() === 0));
    await close();
  },
);

const sizeOf = (r: Rect | undefined) => ({ width: r?.width, height: r?.height });

async function until(holds: () => Promise<boolean>): Promise<void> {
  for (let i = 0; i < 1_000; i += 1) {
    if (await holds()) return;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  throw new Error('waited in vain');
}

type View = Pick<Awaited<ReturnType<typeof pixelsOf>>, 'at'>;

function countDiffering(a: View, b: View, { x, y, width, height }: Rect): number {
  let count = 0;
  for (let row = y; row < y + height; row += 1)
    for (let column = x; column < x + width; column += 1)
      if (String(a.at(column, row)) !== String(b.at(column, row))) count += 1;
  return count;
}
