import { beforeAll, expect, test } from '@jest/globals';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { randomFrom } from '@/core/random/random';
import { run } from '../pool/pool';
import { getShot } from '../shots/rows';
import { covered, display, folder, onOneScreen, routine, taken, told, xdo } from './keyScreen';

onOneScreen();

// The first asking of all waits for its thread to load the program; the app's is built, this is not.
beforeAll(async () => {
  const picture = { width: 8, height: 8, data: new Uint8ClampedArray(8 * 8 * 4) };
  await run('parts', { picture, within: 60_000 }, { pixels: 1 });
});

test('a part is offered under the pointer, the wheel goes out, a click takes it', async () => {
  const script = `wm title . "Bed card"; wm geometry . 300x220+760+120; . configure -background #d9d9d9
frame .p -background #ffffff; place .p -x 20 -y 20 -width 260 -height 160
button .p.b -text "Find" -highlightthickness 0 -borderwidth 0 -background #2f7d55 -foreground white
place .p.b -x 40 -y 60 -width 120 -height 36`;
  const file = join(folder, 'card.tcl');
  writeFileSync(file, script);
  display.start('wish', file);
  await display.windowId('Bed card');
  const at = /Absolute upper-left X: +(\d+)\s+Absolute upper-left Y: +(\d+)/.exec(
    await display.run('xwininfo', '-name', 'Bed card'),
  );
  const [x, y] = [Number(at?.[1]), Number(at?.[2])];
  await routine('f4', { kind: 'part', then: [] });
  await xdo('mousemove', String(x + 75), String(y + 90), 'sleep', '0.3', 'key', 'F4');
  await covered();
  await xdo('mousemove', String(x + 76), String(y + 92), 'click', '1');
  const { shot = '' } = await taken();
  const { crop } = (await getShot(shot)).document.view;
  expect(crop).toEqual({ x: x + 60, y: y + 80, width: 120, height: 36 });
  told.length = 0;
  await xdo('key', 'F4');
  await covered();
  await xdo('mousemove', String(x + 77), String(y + 92), 'click', '4', 'click', '1');
  const outer = await taken();
  expect((await getShot(outer.shot ?? '')).document.view.crop).toEqual({
    x: x + 20,
    y: y + 20,
    width: 260,
    height: 160,
  });
}, 90_000);

/** What words on the cover stand on. */
const INK = [0x1c, 0x2b, 0x2a];
const NO_PART = 'No part here. Move on, or press 3 for a region.';

test('Esc lets go of mouse and keyboard while parts of a grainy screen are still sought', async () => {
  // A tile of grain over the whole screen: everything on it has an edge.
  const next = randomFrom(5);
  const rows = Array.from({ length: 64 * 8 }, () => `0x${Math.floor(next() * 256).toString(16)}`);
  const tile = join(folder, '..', 'grain.xbm');
  writeFileSync(
    tile,
    `#define grain_width 64\n#define grain_height 64\nstatic char grain_bits[] = {\n${rows.join(',\n')}\n};\n`,
  );
  await display.run('xsetroot', '-bitmap', tile);
  const { data, width, height } = await display.pixels();
  const begun = performance.now();
  const picture = { data: new Uint8ClampedArray(data), width, height };
  await run('parts', { picture, within: 60_000 }, { pixels: 1 });
  const sought = performance.now() - begun;
  await routine('f4', { kind: 'part', then: [] });
  await xdo('key', 'F4');
  await covered();
  const pressed = performance.now();
  await xdo('key', 'Escape');
  await covered(false);
  const freed = performance.now() - pressed;
  console.info(`parts sought ${sought.toFixed(0)} ms; free after ${freed.toFixed(0)} ms`);
  expect(freed).toBeLessThan(sought * 0.75);
  expect(told.filter((t) => t.shot)).toEqual([]);
  // Left to go on, the search finds nothing in grain, which is said beside the pointer.
  await xdo('mousemove', '1100', '740', 'key', 'F4');
  await covered();
  /** Where words stand on ink, from the first column to the last; rows between two letters. */
  const label = async () => {
    const { data: seen } = await display.pixels();
    const row = Array.from({ length: width }, (_, x) => {
      const from = (718 * width + x) * 4;
      return INK.every((value, i) => seen[from + i] === value);
    });
    return [row.indexOf(true), row.lastIndexOf(true)];
  };
  for (let i = 0; i < 200 && (await label())[0] === -1; i += 1) {
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  // Whole, though there is little room to the right of the pointer.
  expect(await label()).toEqual([width - NO_PART.length * 6 - 12, width - 1]);
  await xdo('mousemove', '300', '740');
  for (let i = 0; i < 200 && (await label())[0] !== 316; i += 1) {
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  // What was there before is gone, and nothing of it is left.
  expect(await label()).toEqual([316, 316 + NO_PART.length * 6 + 11]);
  await xdo('key', 'Escape');
  await covered(false);
});
