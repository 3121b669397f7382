import { expect, test } from '@jest/globals';
import { readdirSync } from 'node:fs';
import sharp from 'sharp';
import { XDisplay } from '@/tests/lib/xDisplay';
import { closeScreen } from '../display/connection';
import { heldMoments, startHolding, stopHolding } from '../display/held/holding';
import { systemKeyProblem, watchKeys } from '../take/systemKeys';
import { sql } from '../db/sql';
import { getFrame, getShot } from '../shots/rows';
import {
  covered,
  display,
  drag,
  folder,
  onOneScreen,
  routine,
  taken,
  told,
  until,
  xdo,
} from './keyScreen';

onOneScreen();

test('region to the clipboard: one key, one drag', async () => {
  await routine('mod+alt+r', { kind: 'region', atOnce: true, then: [{ do: 'copy' }] });
  const truth = await display.pixels();
  await xdo('key', 'ctrl+alt+r');
  await covered();
  await drag([60, 100], [260, 220]);
  const { shot = '', lines } = await taken();
  expect(lines).toEqual(['Copied: paste it anywhere']);
  expect((await getShot(shot)).document.view.crop).toEqual({
    x: 60,
    y: 100,
    width: 200,
    height: 120,
  });
  const png = await display.bytes('xclip', '-selection', 'clipboard', '-t', 'image/png', '-o');
  const { data, info } = await sharp(png).removeAlpha().raw().toBuffer({ resolveWithObject: true });
  expect([info.width, info.height]).toEqual([200, 120]);
  for (const [x, y] of [
    [0, 0],
    [17, 40],
    [199, 119],
  ] as const) {
    const at = (y * 200 + x) * 3;
    const there = ((100 + y) * 1280 + 60 + x) * 4;
    expect([...data.subarray(at, at + 3)]).toEqual([...truth.data.subarray(there, there + 3)]);
  }
}, 90_000);

test('look back: an open page shows the moments, and none goes meanwhile; without any it is said', async () => {
  const id = await routine('f8', { kind: 'back' });
  await xdo('key', 'F8');
  const { lines } = await until('why not', () => told.find((t) => t.lines.length > 0));
  expect(lines[0]).toMatch(/^Not taken. Nothing is held/);
  await startHolding();
  await xdo('key', 'F8');
  await until('the film', () => told.find((t) => t.film === id));
  const { moments } = await heldMoments();
  const close = display.start('xlogo', '-geometry', '100x100+900+600');
  await new Promise((resolve) => setTimeout(resolve, 800));
  expect((await heldMoments()).moments).toEqual(moments);
  stopHolding();
  await close();
}, 60_000);

test('the window in use into the default folder: one key', async () => {
  await routine('f9', { kind: 'window', inUse: true, then: [{ do: 'keep', folderId: null }] });
  await xdo('windowactivate', '--sync', String(await display.windowId('Bed list')));
  await xdo('key', 'F9');
  const { lines } = await taken();
  expect(lines[0]).toMatch(/^Kept: .*taken /);
  expect(readdirSync(folder).filter((name) => name.endsWith('.png'))).toHaveLength(1);
}, 90_000);

test('two presses in quick succession are two takes', async () => {
  await routine('f8', { kind: 'full', then: [] });
  await xdo('key', 'F8', 'sleep', '0.1', 'key', 'F8');
  await until('both', () => told.filter((t) => t.shot).length === 2);
  expect(new Set(told.map((t) => t.shot)).size).toBe(2);
}, 90_000);

test('a window is chosen on the screen by a click, or by keyboard; its frame comes along', async () => {
  await routine('f10', { kind: 'window', then: [{ do: 'mark' }] });
  await xdo('mousemove', '900', '700', 'key', 'F10');
  await covered();
  await xdo('mousemove', '100', '150', 'click', '1');
  const first = await taken();
  expect(first.mark).toBe(true);
  const shot = await getShot(first.shot ?? '');
  expect(shot.provenance.windowTitle).toBe('Bed list');
  told.length = 0;
  await xdo('key', 'F10');
  await covered();
  await xdo('key', 'Right', 'key', 'Return');
  const second = await taken();
  expect((await getShot(second.shot ?? '')).document.view.crop).toEqual(shot.document.view.crop);
}, 90_000);

test('where a take is to be marked, the window that shows Rezzik comes to the front', async () => {
  display.start('xterm', '-title', 'Shelf Rezzik', '-geometry', '40x8+700+500', '-e', 'sleep 600');
  const page = await display.windowId('Shelf Rezzik');
  await xdo('windowactivate', '--sync', String(await display.windowId('Bed list')));
  await routine('f5', { kind: 'full', then: [{ do: 'mark' }] });
  await xdo('key', 'F5');
  await taken();
  let active = 0;
  for (let i = 0; i < 60 && active !== page; i += 1) {
    // Between two windows none is active, which xdotool counts as an error.
    active = Number(await xdo('getactivewindow').catch(() => '0'));
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  expect(active).toBe(page);
}, 90_000);

test('without taking at once a region is adjusted by keys; Esc and the other button leave nothing', async () => {
  await routine('f8', { kind: 'region', atOnce: false, then: [] });
  const count = async () => (await sql()<{ n: number }[]>`select count(*)::int n from shots`)[0]?.n;
  const before = await count();
  await xdo('key', 'F8');
  await covered();
  await drag([300, 300], [400, 380]);
  await xdo('key', 'Escape');
  await covered(false);
  await xdo('key', 'F8');
  await covered();
  await xdo('click', '3');
  await covered(false);
  expect(await count()).toBe(before);
  await xdo('key', 'F8');
  await covered();
  await drag([300, 300], [400, 380]);
  await xdo('key', 'Right', 'key', 'shift+Down', 'key', 'Return');
  const { shot = '' } = await taken();
  expect((await getShot(shot)).document.view.crop).toEqual({
    x: 301,
    y: 310,
    width: 100,
    height: 80,
  });
}, 90_000);

test('the same region again: one key; a menu opened during the delay is in the picture', async () => {
  await routine('f7', { kind: 'repeat', then: [] });
  await xdo('key', 'F7');
  const { shot = '' } = await taken();
  expect((await getShot(shot)).document.view.crop).toEqual({
    x: 301,
    y: 310,
    width: 100,
    height: 80,
  });
  told.length = 0;
  await routine('f6', { kind: 'full', delay: 1, then: [] });
  const without = await display.pixels();
  await xdo('key', 'F6');
  await xdo('mousemove', '120', '160', 'keydown', 'ctrl', 'mousedown', '1');
  const second = await taken();
  const truth = await display.pixels();
  await xdo('mouseup', '1', 'keyup', 'ctrl');
  const { bytes } = await getFrame(second.shot ?? '');
  const frame = await sharp(bytes).ensureAlpha().raw().toBuffer();
  expect(frame.equals(truth.data)).toBe(true);
  expect(frame.equals(without.data)).toBe(false);
}, 90_000);

test('a polygon by clicks, an oval by a drag: outside it the picture is transparent', async () => {
  await routine('f3', { kind: 'shape', shape: 'polygon', then: [] });
  await xdo('key', 'F3');
  await covered();
  for (const [x, y] of [
    [200, 500],
    [320, 500],
    [320, 620],
    [260, 660],
  ] as const) {
    await xdo('mousemove', String(x), String(y), 'click', '1');
  }
  // The fourth corner is taken back; the first Enter closes, the next takes.
  await xdo('key', 'BackSpace', 'key', 'Return', 'key', 'Return');
  const { shot = '' } = await taken();
  expect((await getShot(shot)).document.view).toEqual({
    crop: { x: 200, y: 500, width: 120, height: 120 },
    shape: {
      kind: 'polygon',
      points: [
        { x: 200, y: 500 },
        { x: 320, y: 500 },
        { x: 320, y: 620 },
      ],
    },
  });
  told.length = 0;
  await routine('f2', { kind: 'shape', shape: 'oval', atOnce: true, then: [] });
  await xdo('key', 'F2');
  await covered();
  await drag([400, 500], [500, 560]);
  const oval = await taken();
  expect((await getShot(oval.shot ?? '')).document.view).toEqual({
    crop: { x: 400, y: 500, width: 100, height: 60 },
    shape: { kind: 'oval' },
  });
}, 90_000);

test('asked on the screen: the kind changed by its number, kept and copied by one key each', async () => {
  await routine('f1', { kind: 'window', ask: true, then: [{ do: 'mark' }] });
  const before = readdirSync(folder).filter((name) => name.endsWith('.png')).length;
  await xdo('key', 'F1');
  await covered();
  await xdo('key', '3', 'sleep', '0.2');
  await drag([600, 300], [700, 380]);
  await xdo('key', 'Return', 'key', 'c', 'key', '1', 'key', 'm', 'key', 'm', 'key', 'Return');
  const { shot = '', lines, mark } = await taken();
  expect(lines).toHaveLength(2);
  expect(lines[0]).toBe('Copied: paste it anywhere');
  expect(lines[1]).toMatch(/^Kept: /);
  expect(mark).toBe(false);
  expect((await getShot(shot)).document.view.crop).toMatchObject({ x: 600, y: 300, width: 100 });
  expect(readdirSync(folder).filter((name) => name.endsWith('.png')).length).toBe(before + 1);
}, 90_000);

test('a sign of nothing: Esc while asked leaves no shot', async () => {
  await routine('f11', { kind: 'full', ask: true, then: [] });
  const count = async () => (await sql()<{ n: number }[]>`select count(*)::int n from shots`)[0]?.n;
  const before = await count();
  await xdo('key', 'F11');
  await covered();
  await xdo('key', 'c', 'key', 'Escape', 'sleep', '0.3');
  expect(await count()).toBe(before);
  expect(told).toHaveLength(0);
}, 90_000);

test('a key that another program has is said, and so is one the keyboard lacks', async () => {
  const other = await XDisplay.open(640, 480);
  // Once it manages a window it has its own keys, Alt+F4 among them.
  other.start('xclock', '-title', 'Bell');
  await other.windowId('Bell');
  process.env.DISPLAY = other.name;
  const taken = await routine('alt+f4', { kind: 'full' });
  const odd = await routine('ø', { kind: 'full' });
  expect(systemKeyProblem(taken)).toBe('Another program has this key already.');
  expect(systemKeyProblem(odd)).toBe('This keyboard has no such key.');
  closeScreen();
  await other.close();
  process.env.DISPLAY = display.name;
}, 90_000);

test('a region drawn into the corner of the screen has its last row and column', async () => {
  await routine('f8', { kind: 'region', atOnce: true, then: [] });
  for (const [from, to] of [
    [
      [900, 600],
      [1279, 799],
    ],
    [
      [1279, 799],
      [900, 600],
    ],
  ] as [[number, number], [number, number]][]) {
    told.length = 0;
    await xdo('key', 'F8');
    await covered();
    await drag(from, to);
    const { shot = '' } = await taken();
    const { crop } = (await getShot(shot)).document.view;
    expect(crop).toEqual({ x: 900, y: 600, width: 380, height: 200 });
  }
}, 90_000);

test('a key is where the letter is, also once the layout is another', async () => {
  // On the German layout y and z change places; Russian letters come before the Latin ones.
  for (const [before, after, letter] of [
    ['us', 'de', 'z'],
    ['de', 'ru,us', 'y'],
  ] as const) {
    await display.run('setxkbmap', before);
    await routine(`mod+alt+${letter}`, { kind: 'full', then: [] });
    await display.run('setxkbmap', after);
    const took = () => told.some((t) => t.shot && t.routine === `By mod+alt+${letter}`);
    // Pressed again now and then, until the new layout has been followed.
    let presses = 0;
    await until(`a take under ${after}`, async () => {
      if (presses % 20 === 0) await xdo('key', '--clearmodifiers', `ctrl+alt+${letter}`);
      presses += 1;
      return took();
    });
  }
  await display.run('setxkbmap', 'us');
}, 90_000);

test('while the display hangs a routine is made all the same, says so, and its key works afterwards', async () => {
  display.signal('SIGSTOP');
  const id = await routine('f4', { kind: 'full', then: [] });
  expect(systemKeyProblem(id)).toContain('does not answer');
  display.signal('SIGCONT');
  await watchKeys();
  expect(systemKeyProblem(id)).toBeUndefined();
  await xdo('key', 'F4');
  await taken();
});
