import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { DisplayAnswer, ScreenWindow } from '@/core/contracts/display';
import { pointerPiece } from '@/core/take/pointerPiece';
import { pieceSchema } from '@/core/marks/piece/schema';
import { XDisplay } from '@/tests/lib/xDisplay';
import { describeDisplay } from '../display/access';
import { ask, closeScreen, screen } from '../display/connection';
import { takeDisplay } from '../take/takeDisplay';
import { changeSettings } from '../settings/settings';
import { begin, finish } from './setup';

/** What a real window manager does with windows, and how they come into the list. */

let display: XDisplay;

beforeAll(async () => {
  await begin();
  await changeSettings({ displayAllowed: true });
  display = await XDisplay.open(1000, 700);
  process.env.DISPLAY = display.name;
  display.start('xclock', '-title', 'Tide', '-geometry', '200x160+300+200');
  await display.windowId('Tide');
});
afterAll(async () => {
  closeScreen();
  await display.close();
  await finish();
});

/** The list, once a window in it is as wanted. */
async function listed(
  title: string,
  isIt: (w: ScreenWindow) => boolean = () => true,
): Promise<{ window: ScreenWindow; answer: DisplayAnswer }> {
  for (let i = 0; i < 1_000; i += 1) {
    const answer = await describeDisplay();
    const window = answer.windows.find((w) => w.title === title);
    if (window && isIt(window)) return { window, answer };
    await new Promise((resolve) => setTimeout(resolve, 30));
  }
  throw new Error(`waited in vain for ${title}`);
}

const placeOf = ({ bounds: { x, y, width, height } }: ScreenWindow) => [x, y, width, height];

const take = (windowId: number) =>
  takeDisplay({ kind: 'window', windowId, pointer: false, delay: 0, then: [] });

test('a minimised window says so, and where it was', async () => {
  const { window: before } = await listed('Tide');
  await display.run('xdotool', 'windowminimize', '--sync', String(before.id));
  const { window } = await listed('Tide', (w) => w.minimised);
  expect(window.bounds).toMatchObject({ width: 200, height: 160 });
  expect(window.desktop).toBeUndefined();
  await expect(take(window.id)).rejects.toThrow('is minimised');
  await display.run('xdotool', 'windowactivate', '--sync', String(before.id));
  // It comes back by itself, in its own time.
  await listed('Tide', (w) => !w.minimised && String(placeOf(w)) === String(placeOf(before)));
});

test('docks, desktops and what they open are told by their types', async () => {
  const file = join(mkdtempSync(join(tmpdir(), 'rezzik-types-')), 'types.tcl');
  writeFileSync(
    file,
    `wm withdraw .
proc one {name type place} {
  toplevel $name
  wm title $name $type
  wm geometry $name $place
  wm attributes $name -type $type
}
one .desktop desktop 1000x700+0+0
one .dock dock 1000x24+0+676
one .dialog dialog 200x100+600+300
menu .m -tearoff 0
foreach bed {North South} { .m add command -label $bed }
bind .dock <Button-1> { tk_popup .m 40 600 }
`,
  );
  const end = display.start('wish', file);
  await listed('dock', ({ type }) => type === 'panel');
  await display.windowId('desktop');
  expect((await listed('dialog')).window.type).toBe('window');
  const before = (await describeDisplay()).windows;
  // What lies over everything else is scenery, and no window to be chosen.
  expect(before.map(({ title }) => title)).not.toContain('desktop');
  await display.run('xdotool', 'mousemove', '40', '690', 'click', '1');
  let opened: ScreenWindow | undefined;
  for (let i = 0; i < 400 && !opened; i += 1) {
    const { windows } = await describeDisplay();
    opened = windows.find(({ id, type }) => type === 'menu' && !before.some((w) => w.id === id));
  }
  expect(opened?.bounds.width).toBeGreaterThan(20);
  expect((await take(opened?.id ?? 0)).width).toBeGreaterThan(20);
  await end();
});

test('a window on another desktop is told with that desktop, and is not called minimised', async () => {
  const { window: before } = await listed('Tide');
  await display.run('wmctrl', '-i', '-r', String(before.id), '-t', '1');
  const { window } = await listed('Tide', (w) => w.desktop !== undefined);
  const desktops = await display.run('wmctrl', '-d');
  const second = desktops
    .split('\n')[1]
    ?.split(/ {2,}/)
    .at(-1)
    ?.replace(/^.*\d+x\d+ /, '');
  expect(window).toMatchObject({ minimised: false, desktop: second, monitor: null });
  await expect(take(window.id)).rejects.toThrow(`on the desktop “${second}”`);
  await display.run('wmctrl', '-i', '-r', String(before.id), '-t', '0');
  await listed('Tide', (w) => w.desktop === undefined);
});

test('titles in Compound Text, in UTF-8 and in Latin-1 are read as what they are', async () => {
  const { X, root, visual } = await screen(display.name);
  const atom = (name: string) => ask<number>((done) => X.InternAtom(false, name, done));
  const [title, compound, plain] = await Promise.all(
    ['WM_NAME', 'COMPOUND_TEXT', 'STRING'].map(atom),
  );
  const make = (type: number | undefined, bytes: Buffer) => {
    const id = X.AllocID();
    X.CreateWindow(id, root, 20, 20, 120, 80, 0, 0, 1, visual, {});
    X.ChangeProperty(0, id, title ?? 0, type ?? 0, 8, bytes);
    X.MapWindow(id);
    return id;
  };
  const made = [
    make(compound, Buffer.from('Bed \u001b-L\u00c0\u00de\u00e1', 'latin1')),
    make(plain, Buffer.from('K\u00fcche', 'latin1')),
    make(plain, Buffer.from('Grünkohl', 'utf8')),
  ];
  for (const name of ['Bed Рос', 'Küche', 'Grünkohl']) await listed(name);
  for (const id of made) X.DestroyWindow(id);
});

test('a monitor has the name it was given, in any script', async () => {
  await display.run('xrandr', '--setmonitor', 'Küche 種', '1000/264x700/185+0+0', 'screen');
  expect((await describeDisplay()).monitors.map((m) => m.name)).toEqual(['Küche 種']);
});

test('a large pointer, for whoever sees little, comes along', () => {
  const rgba = Buffer.alloc(200 * 200 * 4, 7).toString('base64');
  const size = { width: 200, height: 200 };
  const piece = pointerPiece({ x: 50, y: 60, name: '', hotSpot: { x: 10, y: 20 }, ...size, rgba });
  expect(pieceSchema.parse(piece)).toMatchObject({ x: 40, y: 40, ...size });
});
