import { beforeAll, expect, test } from '@jest/globals';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import type { Rect } from '@/core/geometry/rect';
import { runOnDisplay } from '../take/runRoutine';
import { getRoutine } from '../routines/routines';
import { getFrame, getShot } from '../shots/rows';
import {
  covered,
  display,
  drag,
  isCovered,
  onOneScreen,
  routine,
  taken,
  told,
  xdo,
} from './keyScreen';

/** What happens while the menu of another program holds the mouse and the keyboard. */

onOneScreen();

const ORANGE = 'd55e00';
/** What words on the screen stand on. */
const INK = '1c2b2a';
/** Where the menu opens; its colour is met a little to the right and below. */
const MENU = { x: 500, y: 300 };

beforeAll(async () => {
  const file = join(mkdtempSync(join(tmpdir(), 'rezzik-menus-')), 'menu.tcl');
  writeFileSync(
    file,
    `wm title . "Sowing plan"
wm geometry . 300x200+400+200
menu .m -tearoff 0 -background #D55E00 -activebackground #D55E00
foreach bed {North South East West} { .m add command -label $bed }
bind . <Button-1> { tk_popup .m %X %Y }
`,
  );
  display.start('wish', file);
  await display.windowId('Sowing plan');
});

async function openMenu(): Promise<void> {
  await xdo('mousemove', String(MENU.x), String(MENU.y), 'click', '1');
  await until(async () => inMenu(await display.pixels()) === ORANGE);
}

type Pixels = { data: Buffer; width: number };

const colourAt = ({ data, width }: Pixels, x: number, y: number): string =>
  data.subarray((y * width + x) * 4).toString('hex', 0, 3);

const inMenu = (pixels: Pixels): string => colourAt(pixels, MENU.x + 60, MENU.y + 8);

async function until(holds: () => Promise<boolean>): Promise<void> {
  for (let i = 0; i < 1_000; i += 1) {
    if (await holds()) return;
    await new Promise((resolve) => setTimeout(resolve, 30));
  }
  throw new Error('waited in vain');
}

/** The colour of the menu in a shot. */
async function inShot(id: string): Promise<string> {
  const { bytes } = await getFrame(id);
  const { data, info } = await sharp(bytes)
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  return inMenu({ data, width: info.width });
}

/**
 * Closes the menu and chooses once the screen is free. Esc is pressed once: another, when the menu is
 * gone, would be meant for the choosing. Nor is anything dragged once the choosing is over: that
 * would open the program's menu again.
 * @returns the shot
 */
async function closeAndDrag(from: [number, number], to: [number, number]): Promise<string> {
  await xdo('key', 'Escape');
  await until(async () => {
    await drag(from, to);
    for (let i = 0; i < 30; i += 1) {
      if (!(await isCovered())) return true;
    }
    return false;
  });
  return (await taken()).shot ?? '';
}

test('a delayed take that ends over an open menu has it, waits until it is closed, and says so', async () => {
  await routine('f9', { kind: 'region', delay: 1, atOnce: true, then: [] });
  await xdo('key', 'F9');
  await openMenu();
  await covered();
  // The words that say so lie beside the pointer.
  await until(async () => colourAt(await display.pixels(), MENU.x + 18, MENU.y - 18) === INK);
  // Esc goes to the menu; then mouse and keyboard are free.
  const shot = await closeAndDrag([480, 280], [620, 420]);
  expect((await getShot(shot)).document.view.crop).toEqual({
    x: 480,
    y: 280,
    width: 140,
    height: 140,
  });
  expect(await inShot(shot)).toBe(ORANGE);
});

test('a menu that stays open loses no picture: it is kept whole, and why is said', async () => {
  const id = await routine('f9', { kind: 'region', then: [{ do: 'copy' }] });
  await openMenu();
  await runOnDisplay(await getRoutine(id), 200);
  const { shot = '', lines } = await taken();
  expect(lines).toEqual([
    'Nothing could be chosen while another program held the mouse and the keyboard.',
    'On the Shelf',
  ]);
  expect((await getShot(shot)).document.view.crop).toMatchObject({ width: 1280, height: 800 });
  expect(await inShot(shot)).toBe(ORANGE);
  await xdo('key', 'Escape');
});

test.each([
  ['f9', 'F9'],
  ['mod+shift+f6', 'ctrl+shift+F6'],
])(
  '%s is heard while a menu holds the keyboard, once; then it is no key of another',
  async (key, pressed) => {
    await routine(key, { kind: 'region', atOnce: true, then: [] });
    await openMenu();
    await xdo('key', pressed);
    await covered();
    await until(async () => colourAt(await display.pixels(), MENU.x + 18, MENU.y - 18) === INK);
    expect(await inShot(await closeAndDrag([480, 280], [620, 420]))).toBe(ORANGE);
    // With the keyboard free it is heard by its grab, and raw as well: one take a press. Other
    // modifiers are another key.
    told.length = 0;
    await xdo('key', `alt+${pressed}`);
    for (const y of [500, 600]) {
      await xdo('key', pressed);
      await covered();
      await drag([100, y], [200, y + 80]);
      await until(() => Promise.resolve(told.some((t) => t.shot)));
      await covered(false);
      const { shot: next = '' } = await taken();
      expect((await getShot(next)).document.view.crop).toMatchObject({ x: 100, y });
      told.length = 0;
    }
  },
);

/** Opens a menu by a key: the window that its program then shows without a frame. */
async function openedBy(
  key: string,
  before: string,
  program: string,
): Promise<Rect & { id: string }> {
  let found: (Rect & { id: string }) | null = null;
  let looks = 0;
  await until(async () => {
    // A program that has just come up may not hear it yet.
    if (looks % 50 === 0) await xdo('key', key);
    looks += 1;
    for (const line of (await display.run('xwininfo', '-root', '-children')).split('\n')) {
      const [, id, ...numbers] =
        /(0x\w+) .*\s(\d{2,})x(\d{2,})\+\S+ {2}\+(\d+)\+(\d+)$/.exec(line) ?? [];
      const [width = 0, height = 0, x = 0, y = 0] = numbers.map(Number);
      // Others are frames that the window manager draws.
      const isIts = line.includes(`("${program}"`);
      if (id && isIts && !before.includes(id)) found = { id, x, y, width, height };
    }
    return found !== null;
  });
  if (!found) throw new Error('no menu');
  return found;
}

test.each([
  ['GTK 3', 'gtk3-demo-application', 'Application Class', 'F10'],
  ['GTK 4', 'gtk4-demo-application', 'Application Class', 'F10'],
  ['Qt 5', 'speedcrunch', 'SpeedCrunch', 'alt+s'],
])('a system key takes a menu of %s that is open', async (_, program, title, opens) => {
  process.env.GSK_RENDERER = 'cairo';
  await routine('mod+f8', { kind: 'region', atOnce: true, then: [] });
  const end = display.start(program);
  const id = await display.windowId(title);
  await xdo('windowactivate', '--sync', String(id));
  const before = await display.run('xwininfo', '-root', '-children');
  await xdo('mousemove', '1100', '700');
  const menu = await openedBy(opens, before, program);
  // It is painted by and by, and its first entry lit after that: at rest is what stays for a while,
  // and for more than a few looks, which take longer where the machine is busy.
  let { data: truth } = await display.pixels(menu.id);
  let since = performance.now();
  let same = 0;
  await until(async () => {
    const last = truth;
    ({ data: truth } = await display.pixels(menu.id));
    same += 1;
    if (!last.equals(truth)) [since, same] = [performance.now(), 0];
    const isAtRest = same >= 10 && performance.now() - since > 500;
    return new Set(new Uint32Array(truth)).size > 20 && isAtRest;
  });
  await xdo('key', 'ctrl+F8');
  await covered();
  await until(async () => colourAt(await display.pixels(), 1100 + 18, 700 - 18) === INK);
  const shot = await closeAndDrag([100, 600], [300, 700]);
  const { bytes } = await getFrame(shot);
  const { x: left, y: top, width, height } = menu;
  const part = sharp(bytes).ensureAlpha().extract({ left, top, width, height });
  const ours = await part.raw().toBuffer();
  expect(ours.equals(truth)).toBe(true);
  await end();
});
