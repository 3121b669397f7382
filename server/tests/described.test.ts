import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { centre, inflate, type Rect } from '@/core/geometry/rect';
import { findParts } from '@/core/screen/parts';
import { withDescribed, type Part } from '@/core/screen/parts/described';
import { isSame } from '@/core/screen/parts/same';
import { DescribingSession } from '@/tests/lib/describingSession';
import { closeAccessibilityBus } from '../accessibility/bus';
import { describeWindows } from '../accessibility/describe';
import { screen } from '../display/connection';
import { windows } from '../display/windows';
import { closeSessionBus } from '../bus/bus';
import { changeSettings } from '../settings/settings';
import { getShot } from '../shots/rows';
import { covered, display, onOneScreen, routine, taken, until, xdo } from './keyScreen';
import { listedWindow } from './listedWindow';

/** Parts as real programs describe them, held against the pixels that light up under the pointer. */

onOneScreen();

let session: DescribingSession;
let leave = () => Promise.resolve();
beforeEach(async () => {
  // Without a graphics processor, as its makers advise.
  process.env.GSK_RENDERER = 'cairo';
  // A busy machine has time.
  process.env.REZZIK_DESCRIBING_MS = '20000';
  // Each has a bus of its own: Qt 5 may miss one that is there already before it is looked for.
  session = await DescribingSession.open();
});
afterEach(async () => {
  await leave();
  closeAccessibilityBus();
  closeSessionBus();
  await session.close();
});

/** Of the screen, px. */
const ACROSS = 1280;
const DOWN = 800;

/** Not xwd: where a window has another depth than the screen it gives other pixels. */
const picture = () => display.bytes('import', '-window', 'root', '-depth', '8', 'rgba:-');

/** The parts of the screen, found and asked for. */
async function parts(): Promise<Part[]> {
  const [width, height] = [ACROSS, DOWN];
  const data = new Uint8ClampedArray(await picture());
  const described = await describeWindows(await windows(await screen(display.name), []), 5_000);
  return withDescribed(findParts({ data, width, height }), described, { width, height });
}

/** The part that a program calls so. */
async function partOf(program: string, title: string, words: string): Promise<Part> {
  leave = display.start(program);
  await listedWindow(display, title);
  return until(words, async () => (await parts()).find((p) => p.words === words));
}

/** The colours of a part of the screen, once they have not changed for a moment. */
async function atRest({ x, y, width, height }: Rect): Promise<number[]> {
  const colours = async () => {
    const data = await picture();
    return Array.from({ length: width * height }, (_, i) =>
      data.readUInt32BE(((y + Math.floor(i / width)) * ACROSS + x + (i % width)) * 4),
    );
  };
  let seen = await colours();
  return until('the screen is at rest', async () => {
    const last = seen;
    await xdo('sleep', '0.2');
    seen = await colours();
    const isDrawn = new Set(seen).size > 2;
    return isDrawn && seen.every((v, i) => v === last[i]) && seen;
  });
}

/** So far around a part changes are looked for, px. */
const AROUND = 16;

/** What changes around a part when the pointer comes to it, or is pressed there. */
async function litBy(part: Rect, how: 'hover' | 'press'): Promise<Rect> {
  const around = inflate(part, AROUND);
  await xdo('mousemove', '1270', '790');
  const shown = await atRest(around);
  const inside = (all: number[]) =>
    all.filter((_, i) => {
      const [x, y] = [(i % around.width) - AROUND, Math.floor(i / around.width) - AROUND];
      return x >= 0 && y >= 0 && x < part.width && y < part.height;
    });
  const middle = centre(part);
  await xdo('mousemove', String(Math.round(middle.x)), String(Math.round(middle.y)));
  if (how === 'press') await xdo('mousedown', '1');
  const lit = await until('something lights up', async () => {
    const after = await atRest(around);
    const changed = after.flatMap((v, i) => (v === shown[i] ? [] : [i]));
    // A menu that opens from it lies below.
    const within = changed.filter(
      (i) => how === 'hover' || i < (AROUND + part.height) * around.width,
    );
    if (within.length === 0) return false;
    const xs = within.map((i) => around.x + (i % around.width));
    const ys = within.map((i) => around.y + Math.floor(i / around.width));
    const [x, y] = [Math.min(...xs), Math.min(...ys)];
    return { x, y, width: Math.max(...xs) + 1 - x, height: Math.max(...ys) + 1 - y };
  });
  if (how === 'press') await xdo('mouseup', '1');
  await xdo('mousemove', '1270', '790');
  await until('all is as before', async () => {
    const now = await atRest(part);
    const before = inside(shown);
    if (now.every((v, i) => v === before[i])) return true;
    if (how === 'press') await xdo('key', 'Escape');
    return false;
  });
  return lit;
}

test.each([
  ['GTK 3', 'gtk3-demo-application', 'Application Class', 'button “Menu”', 'hover'],
  ['Qt 5', 'speedcrunch', 'SpeedCrunch', 'menu item “Session”', 'press'],
] as const)(
  '%s: a part is known by name and place, and taken by it',
  async (...given) => {
    const [, program, title, words, how] = given;
    const part = await partOf(program, title, words);
    // A border may glow a little beyond.

    expect(isSame(part, await litBy(part, how))).toBe(true);
    await changeSettings({ partsAsked: true });
    await routine('f4', { kind: 'part', then: [] });
    const { x, y } = centre(part);
    await xdo('mousemove', String(Math.round(x)), String(Math.round(y)), 'key', 'F4');
    await covered();
    await xdo('click', '1');
    const { shot = '' } = await taken();
    const { title: called, document, provenance } = await getShot(shot);
    const { crop } = document.view;
    expect(crop).toEqual({ x: part.x, y: part.y, width: part.width, height: part.height });
    expect(called).toMatch(new RegExp(`^Part \\d+, ${words}$`));
    expect(provenance).toMatchObject({ part: words });
    expect(document.description).toBe(words.replace(/^[bm]/, (c) => c.toUpperCase()));
  },
  60_000,
);
