import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { createHash } from 'node:crypto';
import sharp from 'sharp';
import {
  displayAnswerSchema,
  screenStillSchema,
  type DisplayAnswer,
} from '@/core/contracts/display';
import { storedSchema } from '@/core/contracts/shot';
import { XDisplay } from '@/tests/lib/xDisplay';
import * as displayRoute from '@/app/api/display/route';
import * as displayShots from '@/app/api/display/shots/route';
import * as stillsRoute from '@/app/api/display/stills/route';
import * as pixelsRoute from '@/app/api/display/stills/[id]/pixels/route';
import { POST as turnWheel } from '@/app/api/display/wheel/route';
import { changeSettings } from '../settings/settings';
import { closeScreen, screen, whyNot } from '../display/connection';
import { clearGaps } from '../display/still';
import { cleanTitle } from '../display/windows';
import { getFrame, getShot } from '../shots/rows';
import { at, begin, finish, jsonRequest, request } from './setup';

let display: XDisplay;

beforeAll(async () => {
  await begin();
  display = await XDisplay.open(1600, 900);
  // One screen with two monitors of different size, side by side and not level.
  await display.run('xrandr', '--setmonitor', 'Left', '1000/264x900/238+0+0', 'screen');
  await display.run('xrandr', '--setmonitor', 'Right', '600/158x700/185+1000+100', 'none');
  process.env.DISPLAY = display.name;
  await changeSettings({ displayAllowed: true });
  display.start('xterm', '-title', 'Bed list', '-geometry', '60x20+40+60', '-e', 'sleep 600');
  await display.windowId('Bed list');
  display.start('xclock', '-title', 'Garden clock', '-geometry', '240x240+1100+200');
  await display.windowId('Garden clock');
  await display.run('xdotool', 'mousemove', '1150', '650');
}, 60_000);

afterAll(async () => {
  closeScreen();
  await display.close();
  await finish();
});

const look = async (): Promise<DisplayAnswer> =>
  displayAnswerSchema.parse(await (await displayRoute.GET(request('/api/display'), at({}))).json());

const take = async (wish: object) =>
  displayShots.POST(jsonRequest('/api/display/shots', 'POST', wish), at({}));

async function frameOf(id: string) {
  const { bytes } = await getFrame(id);
  return sharp(bytes).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
}

test('monitors are those the X server has, by xrandr', async () => {
  const words = await display.run('xrandr', '--listmonitors');
  const { monitors, width, height } = await look();
  expect({ width, height }).toEqual({ width: 1600, height: 900 });
  for (const m of monitors) {
    expect(words).toMatch(
      new RegExp(`${m.name} ${m.width}/\\d+x${m.height}/\\d+\\+${m.x}\\+${m.y}`),
    );
  }
  expect(monitors).toHaveLength(2);
});

test('windows have the title and place that xwininfo reports, and their frame around them', async () => {
  const { windows } = await look();
  for (const title of ['Bed list', 'Garden clock']) {
    const found = windows.find((w) => w.title === title);
    expect(found?.bounds).toEqual(await display.window(title));
    expect(found?.id).toBe(await display.windowId(title));
    expect(found?.frameBounds?.y).toBeLessThan(found?.bounds.y ?? 0);
    expect(found?.type).toBe('window');
  }
  expect(windows.find((w) => w.title === 'Bed list')).toMatchObject({
    program: 'XTerm',
    monitor: 'Left',
  });
  expect(windows.find((w) => w.title === 'Garden clock')?.monitor).toBe('Right');
});

test('windows are told from back to front, and the focused one is known', async () => {
  const id = await display.windowId('Bed list');
  await display.run('xdotool', 'windowactivate', '--sync', String(id));
  const isAbove = async () => {
    const order = (await look()).windows.map((w) => w.title);
    return order.indexOf('Bed list') > order.indexOf('Garden clock');
  };
  // The window manager raises it a moment after it has the focus.
  for (let i = 0; i < 100 && !(await isAbove()); i += 1)
    await new Promise((resolve) => setTimeout(resolve, 50));
  expect(await isAbove()).toBe(true);
  const { focused, pointer } = await look();
  expect(focused).toBe(id);
  expect(pointer).toEqual({ x: 1150, y: 650 });
});

test('a frame has the pixels that xwd reads, gaps between monitors left empty', async () => {
  const answer = await take({ kind: 'full' });
  expect(answer.status).toBe(201);
  const { id } = storedSchema.parse(await answer.json());
  const { data, info } = await frameOf(id);
  const truth = await display.pixels();
  expect([info.width, info.height]).toEqual([truth.width, truth.height]);
  const strip = (from: Buffer, x: number, y: number, width: number, height: number) =>
    createHash('sha256')
      .update(
        Buffer.concat(
          Array.from({ length: height }, (_, row) =>
            from.subarray(((y + row) * 1600 + x) * 4, ((y + row) * 1600 + x + width) * 4),
          ),
        ),
      )
      .digest('hex');
  // The clock's hands move: everything but the clock must be the same.
  expect(strip(data, 0, 0, 1000, 900)).toBe(strip(truth.data, 0, 0, 1000, 900));
  expect(strip(data, 1000, 500, 600, 300)).toBe(strip(truth.data, 1000, 500, 600, 300));
  expect([...data.subarray((50 * 1600 + 1300) * 4, (50 * 1600 + 1300) * 4 + 4)]).toEqual([
    0, 0, 0, 0,
  ]);
  expect(data[(850 * 1600 + 1300) * 4 + 3]).toBe(0);
});

test('a window is taken by its number, with its frame; the shot knows title and program', async () => {
  const id = await display.windowId('Bed list');
  const { windows } = await look();
  const found = windows.find((w) => w.id === id);
  const stored = storedSchema.parse(await (await take({ kind: 'window', windowId: id })).json());
  const shot = await getShot(stored.id);
  expect(shot.document.view.crop).toEqual(found?.frameBounds);
  expect(shot.provenance).toMatchObject({
    source: 'display',
    windowTitle: 'Bed list',
    program: 'XTerm',
  });
  expect(shot.title).toBe('Bed list');
});

test('the pointer comes as a piece of its own, and is not in the frame', async () => {
  const region = { x: 1100, y: 600, width: 100, height: 100 };
  const stored = storedSchema.parse(
    await (await take({ kind: 'region', region, pointer: true })).json(),
  );
  const shot = await getShot(stored.id);
  const [piece] = shot.document.marks;
  if (piece?.kind !== 'piece') throw new Error('no pointer');
  expect(piece.x + piece.hotSpot.x * piece.width).toBeCloseTo(1150, 6);
  expect(piece.y + piece.hotSpot.y * piece.height).toBeCloseTo(650, 6);
  const { data } = await frameOf(stored.id);
  const truth = await display.pixels();
  const row = (from: Buffer) => from.subarray((652 * 1600 + 1100) * 4, (652 * 1600 + 1200) * 4);
  expect(row(data).equals(row(truth.data))).toBe(true);
});

test('a covered window is had whole, by its own pixels', async () => {
  const under = await display.windowId('Garden clock');
  const cover = ['-title', 'Cover', '-bg', '#204030', '-geometry', '40x18+1080+180'];
  display.start('xterm', ...cover, '-e', 'sleep 600');
  await display.windowId('Cover');
  const still = screenStillSchema.parse(
    await (
      await stillsRoute.POST(request('/api/display/stills', { method: 'POST' }), at({}))
    ).json(),
  );
  expect(still.own).toContain(under);
  const pixels = async (query: string) => {
    const path = `/api/display/stills/${still.id}/pixels${query}`;
    const answer = await pixelsRoute.GET(request(path), at({ id: still.id }));
    return Buffer.from(await answer.arrayBuffer());
  };
  const seen = await pixels('');
  const own = await pixels(`?window=${under}`);
  const place = still.windows.find((w) => w.id === under)?.bounds;
  if (!place) throw new Error('no window');
  const white = (from: Buffer) => {
    let count = 0;
    for (let y = place.y + 4; y < place.y + 40; y += 1) {
      for (let x = place.x + 4; x < place.x + 40; x += 1) {
        if (from[(y * 1600 + x) * 4] === 255 && from[(y * 1600 + x) * 4 + 1] === 255) count += 1;
      }
    }
    return count;
  };
  // The clock's corner is plain white; the window over it is green.
  expect(white(own)).toBe(36 * 36);
  expect(white(seen)).toBeLessThan(36 * 36);
});

test('a menu opened by the pointer is a window of its own kind', async () => {
  const id = await display.windowId('Bed list');
  const place = await display.window('Bed list');
  if (!place) throw new Error('no window');
  await display.run('xdotool', 'windowactivate', '--sync', String(id));
  await display.run('xdotool', 'mousemove', String(place.x + 60), String(place.y + 60));
  await display.run('xdotool', 'keydown', 'ctrl', 'mousedown', '1');
  let menus: DisplayAnswer['windows'] = [];
  for (let i = 0; i < 40 && menus.length === 0; i += 1) {
    menus = (await look()).windows.filter((w) => w.type === 'menu');
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  await display.run('xdotool', 'mouseup', '1', 'keyup', 'ctrl');
  expect(menus.length).toBeGreaterThan(0);
  const [menu] = menus;
  if (!menu) throw new Error('no menu');
  // It opens under the pointer.
  expect(Math.abs(menu.bounds.y - (place.y + 60))).toBeLessThan(60);
  expect(menu.bounds.x).toBeLessThanOrEqual(place.x + 60);
  expect(menu.bounds.x + menu.bounds.width).toBeGreaterThan(place.x + 60);
});

test.each([
  [{ kind: 'window', windowId: 12345 }, 404, 'This window is gone.'],
  [{ kind: 'full', monitor: 'Attic' }, 404, 'There are: Left, Right.'],
  [{ kind: 'region' }, 400, 'A region needs'],
  [
    { kind: 'region', region: { x: -500, y: -500, width: 20, height: 20 } },
    400,
    'Nothing of that place',
  ],
  [{ kind: 'region', region: { x: -10, y: 0, width: 1, height: 1 } }, 400, 'Nothing of that place'],
  [{ kind: 'moon' }, 400, 'kind'],
])('%j is refused in plain words', async (wish, status, words) => {
  const answer = await take(wish);
  expect(answer.status).toBe(status);
  expect(await answer.text()).toContain(words);
});

test('titles are made fit to be shown and stored', () => {
  expect(cleanTitle('Beds\u0000\u0007 and\npaths \u202Egnp')).toBe('Beds and paths gnp');
  expect(cleanTitle('x'.repeat(10_000))).toHaveLength(300);
  expect(cleanTitle('Ростки 種 🌱')).toBe('Ростки 種 🌱');
  expect(cleanTitle(`${'x'.repeat(299)}🌱`)).toHaveLength(299);
});

test('gaps of any layout are emptied and nothing else', () => {
  const data = new Uint8ClampedArray(4 * 3 * 4).fill(255);
  const place = (x: number, y: number, width: number, height: number) => ({
    name: 'm',
    primary: false,
    ...{ x, y, width, height },
  });
  clearGaps({ data, width: 4, height: 3 }, [place(0, 1, 2, 2), place(3, 0, 1, 2)]);
  const alpha = Array.from({ length: 12 }, (_, i) => data[i * 4 + 3]);
  expect(alpha).toEqual([0, 0, 0, 255, 255, 255, 0, 255, 255, 255, 0, 0]);
});

test('without leave nothing is read, and a program is told why', async () => {
  await changeSettings({ displayAllowed: false });
  expect(await look()).toMatchObject({ available: false, windows: [] });
  expect((await take({ kind: 'full' })).status).toBe(403);
  const turn = { x: 10, y: 10, clicks: 1 };
  const turned = await turnWheel(jsonRequest('/api/display/wheel', 'POST', turn), at({}));
  expect(turned.status).toBe(403);
  await changeSettings({ displayAllowed: true });
});

test('a display that is not there, or went away, is said; the next one is found again', async () => {
  expect(whyNot(':7', Object.assign(new Error('x'), { code: 'ENOENT' }))).toContain(
    'no display :7',
  );
  expect(whyNot(':7', new Error('No protocol specified: not authorized'))).toContain(
    'does not let',
  );
  process.env.DISPLAY = ':4711';
  expect((await look()).reason).toContain('no display :4711');
  delete process.env.DISPLAY;
  expect((await look()).reason).toContain('DISPLAY is not set');
  const short = await XDisplay.open(320, 200, '');
  process.env.DISPLAY = short.name;
  expect((await look()).available).toBe(true);
  await short.close();
  expect((await look()).available).toBe(false);
  process.env.DISPLAY = display.name;
  expect((await look()).available).toBe(true);
}, 20_000);

test('a display that hangs is said, and is there again once it goes on', async () => {
  const slow = await XDisplay.open(320, 200, '');
  process.env.DISPLAY = slow.name;
  expect((await look()).available).toBe(true);
  slow.signal('SIGSTOP');
  // While it is connected, and while it would have to be.
  for (let i = 0; i < 2; i += 1) {
    const { available, reason } = await look();
    expect(available).toBe(false);
    expect(reason).toContain('does not answer');
  }
  const answer = await take({ kind: 'full' });
  expect(answer.status).toBe(503);
  slow.signal('SIGCONT');
  expect((await look()).available).toBe(true);
  expect((await take({ kind: 'full' })).status).toBe(201);
  closeScreen();
  await slow.close();
  process.env.DISPLAY = display.name;
}, 30_000);

test('three hundred windows without a window manager are all told, the last one in front', async () => {
  const bare = await XDisplay.open(800, 600, '');
  process.env.DISPLAY = bare.name;
  const { X, root, visual } = await screen(bare.name);
  for (let i = 0; i < 300; i += 1) {
    const id = X.AllocID();
    X.CreateWindow(id, root, i, i, i === 5 ? 1 : 40, i === 5 ? 1 : 30, 0, 0, 1, visual, {});
    X.MapWindow(id);
  }
  const { windows } = await look();
  expect(windows).toHaveLength(300);
  expect(windows.at(-1)?.bounds).toEqual({ x: 299, y: 299, width: 40, height: 30 });
  expect(windows[5]?.bounds).toMatchObject({ width: 1, height: 1 });
  expect(windows[0]?.title).toBe('');
  closeScreen();
  await bare.close();
  process.env.DISPLAY = display.name;
}, 30_000);
