import { afterEach, expect, test } from '@jest/globals';
import { once } from 'node:events';
import { mkdtempSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { ScreenWindow } from '@/core/contracts/display';
import { StandInProgram, type Thing } from '@/tests/lib/standInProgram';
import { closeAccessibilityBus } from '../accessibility/bus';
import { describeWindows } from '../accessibility/describe';
import { closeSessionBus } from '../bus/bus';

/** Programs that describe themselves truly, at length, wrongly, or not at all. */

let program: StandInProgram | null = null;
afterEach(async () => {
  closeAccessibilityBus();
  closeSessionBus();
  await program?.close();
  program = null;
  delete process.env.DBUS_SESSION_BUS_ADDRESS;
});

const windowAt = (id: number, title: string, x: number, y: number): ScreenWindow => ({
  ...{ id, title, program: 'Stand-in', type: 'window', monitor: null, minimised: false },
  bounds: { x, y, width: 400, height: 300 },
});

const inWindow = (...children: Thing[]): Thing => ({
  ...{ role: 'frame', name: 'Bed list', box: [100, 100, 400, 300] },
  children,
});

async function told(tops: Thing[], windows = [windowAt(1, 'Bed list', 100, 100)]) {
  program = await StandInProgram.open(tops);
  process.env.DBUS_SESSION_BUS_ADDRESS = program.address;
  // A busy machine has time; what is shown here does not hang on it.
  return describeWindows(windows, 20_000);
}

test('buttons, fields and rows are told by plain words; what only holds others is not', async () => {
  const parts = await told([
    inWindow({
      ...{ role: 'filler', name: '', box: [100, 100, 400, 300] },
      children: [
        { role: 'push button', name: 'Print\n labels', box: [120, 120, 90, 30] },
        { role: 'entry', name: '', box: [120, 160, 200, 28] },
        { role: 'list item', name: 'Sea holly', box: [120, 200, 300, 20] },
      ],
    }),
  ]);
  expect(parts).toEqual([
    { x: 100, y: 100, width: 400, height: 300, words: 'window “Bed list”' },
    { x: 120, y: 120, width: 90, height: 30, words: 'button “Print labels”' },
    { x: 120, y: 160, width: 200, height: 28, words: 'field' },
    { x: 120, y: 200, width: 300, height: 20, words: 'row “Sea holly”' },
  ]);
  // Nobody wanted it before, so nobody is left to describe itself afterwards.
  expect(program?.wanted).toEqual([true, false]);
});

test('what lies under another window or beyond its own is not told', async () => {
  const button = (name: string, x: number): Thing => ({
    ...{ role: 'push button', name, box: [x, 120, 60, 30] },
  });
  const covering = windowAt(2, 'Frost warning', 250, 0);
  const parts = await told(
    [inWindow(button('Seen', 120), button('Covered', 300), button('Beyond', 700))],
    [windowAt(1, 'Bed list', 100, 100), covering],
  );
  expect(parts.map((p) => p.words)).toContain('button “Seen”');
  expect(parts.map((p) => p.words).join()).not.toMatch(/Covered|Beyond/);
});

test('a list of a hundred thousand rows is asked only for those that are seen', async () => {
  const rows = Array.from({ length: 12 }, (_, i): Thing => ({
    role: 'list item',
    name: `Bed ${i}`,
    box: [110, 110 + i * 24, 380, 24],
  }));
  const list: Thing = {
    ...{ role: 'list', name: '', box: [110, 110, 380, 280], children: rows, claims: 100_000 },
  };
  const parts = await told([inWindow(list)]);
  expect(parts.filter((p) => p.words.startsWith('row'))).toHaveLength(12);
});

test('boxes and names without measure do no harm', async () => {
  const parts = await told([
    inWindow(
      { role: 'push button', name: 'x'.repeat(8_000), box: [120, 120, 2 ** 31 - 1, 30] },
      { role: 'push button', name: 'Nowhere', box: [-(2 ** 31), -(2 ** 31), 1, 1] },
      { role: 'push button', name: 'Inside out', box: [200, 200, -50, -50] },
      { role: '', name: '\u0007\u202e', box: [120, 200, 40, 20] },
    ),
  ]);
  expect(parts.map((p) => [p.x, p.width, [...p.words].length])).toEqual([
    [100, 400, 17],
    [120, 380, 69],
    [120, 40, expect.any(Number)],
  ]);
});

test('what never answers holds nothing else up', async () => {
  const begun = performance.now();
  const parts = await told([
    inWindow(
      { role: 'push button', name: 'Dumb', box: [120, 120, 60, 30], silent: true },
      { role: 'push button', name: 'Save', box: [120, 160, 60, 30] },
    ),
  ]);
  expect(parts.map((p) => p.words)).toEqual(['window “Bed list”', 'button “Save”']);
  expect(performance.now() - begun).toBeLessThan(10_000);
});

test('a bus that never answers takes no more time than a person waits', async () => {
  const path = join(mkdtempSync(join(tmpdir(), 'rezzik-bus-')), 'silent');
  const silent = createServer(() => undefined).listen(path);
  await once(silent, 'listening');
  process.env.DBUS_SESSION_BUS_ADDRESS = `unix:path=${path}`;
  const begun = performance.now();
  expect(await describeWindows([windowAt(1, 'Bed list', 100, 100)], 300)).toEqual([]);
  // The bus itself has ten times as long to answer.
  expect(performance.now() - begun).toBeLessThan(2_000);
  closeAccessibilityBus();
  closeSessionBus();
  silent.close();
});

test('without a bus, and with one that goes away, there are no parts and no error', async () => {
  expect(await describeWindows([windowAt(1, 'Bed list', 100, 100)], 1_200)).toEqual([]);
  await told([inWindow()]);
  await program?.close();
  program = null;
  expect(await describeWindows([windowAt(1, 'Bed list', 100, 100)], 1_200)).toEqual([]);
});
