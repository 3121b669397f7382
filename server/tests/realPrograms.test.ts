import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import sharp from 'sharp';
import type { ScreenWindow } from '@/core/contracts/display';
import { XDisplay } from '@/tests/lib/xDisplay';
import { ask, closeScreen, screen } from '../display/connection';
import { takeDisplay } from '../take/takeDisplay';
import { changeSettings } from '../settings/settings';
import { getFrame, getShot } from '../shots/rows';
import { listedWindow } from './listedWindow';
import { begin, finish } from './setup';

/** Programs of several toolkits as they come, each under others and partly beyond the edge. */

const size = { width: 1280, height: 800 };
const programs = [
  { toolkit: 'GTK 3', title: 'Application Class', program: 'gtk3-demo-application' },
  { toolkit: 'GTK 4', title: 'Icon Browser', program: 'gtk4-icon-browser' },
  { toolkit: 'Qt 5', title: 'SpeedCrunch', program: 'speedcrunch' },
  { toolkit: 'Tk', title: 'wish', program: 'wish' },
] as const;

const OPAQUE = 255;
let display: XDisplay;

beforeAll(async () => {
  // Without a graphics processor, as its makers advise.
  process.env.GSK_RENDERER = 'cairo';
  await begin();
  await changeSettings({ displayAllowed: true });
});
afterAll(finish);

const windowOf = (title: string): Promise<ScreenWindow> => listedWindow(display, title);

interface Picture {
  width: number;
  height: number;
  /** A word a pixel: alpha, blue, green, red from its upper end, as RGBA lies in memory. */
  words: Uint32Array;
}

/** A window's pixels as the X server tells them of the window itself (GetImage), premultiplied. */
async function ofItself(id: number): Promise<Picture> {
  const { X } = await screen(display.name);
  const facts = await display.run('xwininfo', '-id', String(id));
  const [width = 0, height = 0, depth = 0] = ['Width', 'Height', 'Depth'].map((label) =>
    Number(new RegExp(`${label}: (\\d+)`).exec(facts)?.[1]),
  );
  const { data } = await ask<{ data: Buffer }>((done) =>
    X.GetImage(2, id, 0, 0, width, height, 0xffffffff, done),
  );
  const words = new Uint32Array(width * height);
  for (let i = 0; i < words.length; i += 1) {
    const [blue = 0, green = 0, red = 0, alpha = 0] = data.subarray(i * 4, i * 4 + 4);
    const opacity = depth === 32 ? alpha : OPAQUE;
    words[i] = ((opacity << 24) | (blue << 16) | (green << 8) | red) >>> 0;
  }
  return { width, height, words };
}

async function taken(id: number): Promise<Picture & { visibleOnly?: boolean | undefined }> {
  const stored = await takeDisplay({
    kind: 'window',
    windowId: id,
    pointer: false,
    delay: 0,
    then: [],
  });
  const { x: left, y: top, ...extent } = (await getShot(stored.id)).document.view.crop;
  const { bytes } = await getFrame(stored.id);
  const view = sharp(bytes).ensureAlpha();
  const cut = view.extract({ left, top, ...extent });
  const { data, info } = await cut.raw().toBuffer({ resolveWithObject: true });
  const words = new Uint32Array(new Uint8Array(data).buffer);
  expect([info.width, info.height]).toEqual([extent.width, extent.height]);
  return { ...extent, words, visibleOnly: stored.visibleOnly };
}

/** Pixels of a window that are not what the window itself has, where it is opaque. */
function differing(shot: Picture, own: Picture, offset: { x: number; y: number }): number {
  let count = 0;
  let compared = 0;
  for (let y = 0; y < own.height; y += 1) {
    for (let x = 0; x < own.width; x += 1) {
      const wanted = own.words[y * own.width + x] ?? 0;
      const [sx, sy] = [x + offset.x, y + offset.y];
      if (wanted >>> 24 !== OPAQUE || sx < 0 || sy < 0 || sx >= shot.width || sy >= shot.height)
        continue;
      compared += 1;
      if (shot.words[sy * shot.width + sx] !== wanted) count += 1;
    }
  }
  expect(compared).toBeGreaterThan(own.width * own.height * 0.8);
  return count;
}

async function until(holds: () => Promise<boolean>): Promise<void> {
  for (let i = 0; i < 400; i += 1) {
    if (await holds()) return;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  throw new Error('waited in vain');
}

/** How often a shot and the window are compared, until it stands still. */
async function same(id: number, title: string): Promise<boolean> {
  const { bounds, frameBounds } = await windowOf(title);
  const place = frameBounds ?? bounds;
  const shot = await taken(id);
  expect(shot.visibleOnly).toBeUndefined();
  expect([shot.width, shot.height]).toEqual([place.width, place.height]);
  const drawn = await display.window(title);
  const offset = { x: (drawn?.x ?? 0) - place.x, y: (drawn?.y ?? 0) - place.y };
  return differing(shot, await ofItself(id), offset) === 0;
}

describe.each(['openbox', 'xfwm4'])('under %s', (manager) => {
  beforeAll(async () => {
    display = await XDisplay.open(size.width, size.height, manager);
    process.env.DISPLAY = display.name;
    await screen(display.name);
  }, 60_000);
  afterAll(async () => {
    closeScreen();
    await display.close();
  });

  test.each(programs)(
    '$toolkit: its own pixels, covered and over the edge',
    async ({ title, program }) => {
      display.start(program);
      const { id } = await windowOf(title);
      const cover = `Lid of ${title}`;
      const where = ['-geometry', '160x60+0+0', '-bg', '#204030', '-title', cover];
      display.start('xterm', ...where, '-e', 'sleep 600');
      await windowOf(cover);
      await until(() => same(id, title));
      await display.run('wmctrl', '-i', '-r', String(id), '-e', '0,900,500,-1,-1');
      await until(async () => (await windowOf(title)).bounds.x > 600);
      await until(() => same(id, title));
    },
  );
});
