import { afterAll, beforeAll, beforeEach } from '@jest/globals';
import { firstWay, type Way } from '@/core/contracts/way';
import type { TakenNotice } from '@/core/contracts/display';
import { XDisplay } from '@/tests/lib/xDisplay';
import { closeScreen } from '../display/connection';
import { pageStream } from '../display/openPages';
import { watchKeys } from '../take/systemKeys';
import { addFolder } from '../folders/folders';
import { sql } from '../db/sql';
import { addRoutine, listRoutines, removeRoutine } from '../routines/routines';
import { changeSettings } from '../settings/settings';
import { begin, finish, testFolder } from './setup';

/** The screen that the tests of a file use; there from `onOneScreen` on. */
export let display: XDisplay;
/** The default folder. */
export let folder: string;
/** What was told to an open page. */
export const told: TakenNotice[] = [];
const stop = new AbortController();

let size = { width: 1280, height: 800 };

/** A display with a window on it, and a folder, for all tests of a file. */
export function onOneScreen(wanted = size): void {
  size = wanted;
  beforeAll(async () => {
    await begin();
    display = await XDisplay.open(size.width, size.height);
    process.env.DISPLAY = display.name;
    await changeSettings({ displayAllowed: true });
    display.start('xterm', '-title', 'Bed list', '-geometry', '60x20+40+60', '-e', 'sleep 600');
    await display.windowId('Bed list');
    // The keys on the screen count the folders there are.
    await sql()`delete from folders`;
    folder = testFolder('by-key');
    await sql()`update folders set is_default = false`;
    await addFolder({
      name: 'By key',
      path: folder,
      format: 'png',
      quality: 90,
      pattern: 'taken {n}',
      isDefault: true,
      make: false,
    });
    void listen();
  }, 60_000);

  afterAll(async () => {
    stop.abort();
    for (const { id } of await listRoutines()) await removeRoutine(id);
    closeScreen();
    await display.close();
    await finish();
  });

  beforeEach(async () => {
    for (const { id } of await listRoutines()) await removeRoutine(id);
    told.length = 0;
  });
}

/** What an open page would hear. */
async function listen(): Promise<void> {
  const decoder = new TextDecoder();
  for await (const bytes of pageStream(stop.signal)) {
    const data = /^data: (.*)/.exec(decoder.decode(bytes))?.[1];
    if (data) told.push(JSON.parse(data) as TakenNotice);
  }
}

export async function routine(systemKey: string, way: Partial<Way>): Promise<string> {
  const { id } = await addRoutine({
    name: `By ${systemKey}`,
    key: null,
    systemKey,
    way: { ...firstWay, source: 'display', ...way },
  });
  await watchKeys();
  return id;
}

export async function until<T>(
  what: string,
  get: () => T | undefined | false | Promise<T | undefined | false>,
): Promise<T> {
  for (let i = 0; i < 800; i += 1) {
    const got = await get();
    if (got) return got;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  throw new Error(`waited in vain for ${what}`);
}

export const taken = () => until('the take', () => told.find((t) => t.shot));

/** True while our cover lies over the whole screen. */
export async function isCovered(): Promise<boolean> {
  const tree = await display.run('xwininfo', '-root', '-children');
  return tree.includes(`(has no name): ()  ${size.width}x${size.height}+0+0`);
}

/** Waits until our cover lies over the whole screen, or is gone from it. */
export async function covered(wanted = true): Promise<void> {
  for (let i = 0; i < 1_000; i += 1) {
    if ((await isCovered()) === wanted) return;
    await new Promise((resolve) => setTimeout(resolve, 30));
  }
  throw new Error(`the cover did not ${wanted ? 'come up' : 'go'}`);
}

export const xdo = (...args: string[]) => display.run('xdotool', ...args);

export async function drag(from: [number, number], to: [number, number]): Promise<void> {
  await xdo('mousemove', String(from[0]), String(from[1]), 'mousedown', '1');
  await xdo('mousemove', String((from[0] + to[0]) >> 1), String((from[1] + to[1]) >> 1));
  await xdo('mousemove', String(to[0]), String(to[1]), 'mouseup', '1');
}
