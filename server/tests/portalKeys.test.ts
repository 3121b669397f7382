import { afterAll, afterEach, beforeAll, expect, test } from '@jest/globals';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import sharp from 'sharp';
import type { TakenNotice } from '@/core/contracts/display';
import { firstWay } from '@/core/contracts/way';
import { StandInPortal } from '@/tests/lib/standInPortal';
import { heldStill } from '../display/heldStills';
import { pageStream } from '../display/openPages';
import { systemKeyProblem, watchKeys } from '../take/systemKeys';
import { closeSessionBus } from '../bus/bus';
import { triggerOf } from '../portal/shortcuts';
import { addRoutine, changeRoutine, listRoutines, removeRoutine } from '../routines/routines';
import { changeSettings } from '../settings/settings';
import { begin, finish } from './setup';

/** System keys on a desktop on Wayland, which gives them through its portal alone. */

const folder = mkdtempSync(join(tmpdir(), 'rezzik-portal-keys-'));
let portal: StandInPortal;
let made = 0;
const stop = new AbortController();
const told: TakenNotice[] = [];

beforeAll(async () => {
  await begin();
  await changeSettings({ displayAllowed: true });
  portal = await StandInPortal.open();
  process.env.WAYLAND_DISPLAY = 'wayland-9';
  delete process.env.DISPLAY;
  process.env.DBUS_SESSION_BUS_ADDRESS = portal.address;
  const create = { width: 40, height: 30, channels: 3 as const, background: '#0072B2' };
  const png = await sharp({ create }).png().toBuffer();
  portal.manner = () => {
    made += 1;
    const path = join(folder, `Screen ${made}.png`);
    writeFileSync(path, png);
    return { code: 0, uri: pathToFileURL(path).href };
  };
  void listen();
});
afterEach(async () => {
  for (const { id } of await listRoutines()) await removeRoutine(id);
  await watchKeys();
  Object.assign(portal, { keyCode: 0, withheld: [] });
  told.length = 0;
  portal.notices.length = 0;
});
afterAll(async () => {
  stop.abort();
  closeSessionBus();
  delete process.env.WAYLAND_DISPLAY;
  delete process.env.DBUS_SESSION_BUS_ADDRESS;
  await portal.close();
  await finish();
});

async function listen(): Promise<void> {
  const decoder = new TextDecoder();
  for await (const bytes of pageStream(stop.signal)) {
    const data = /^data: (.*)/.exec(decoder.decode(bytes))?.[1];
    if (data) told.push(JSON.parse(data) as TakenNotice);
  }
}

async function until<T>(what: string, get: () => T | undefined | false): Promise<T> {
  for (let i = 0; i < 400; i += 1) {
    const got = get();
    if (got) return got;
    await new Promise((resolve) => setTimeout(resolve, 25));
  }
  throw new Error(`waited in vain for ${what}`);
}

const keyed = async (systemKey: string): Promise<string> => {
  const way = { ...firstWay, source: 'display' as const, kind: 'region' as const };
  const { id } = await addRoutine({ name: `By ${systemKey}`, key: null, systemKey, way });
  await watchKeys();
  return id;
};

const works = (id: string) => until('the key', () => systemKeyProblem(id) === undefined);

// The names of keys and modifiers are those of the XDG shortcuts specification.
test.each([
  ['mod+alt+r', 'CTRL+ALT+r'],
  ['shift+f5', 'SHIFT+F5'],
  ['printscreen', 'Print'],
  ['mod+pageup', 'CTRL+Page_Up'],
  ['alt+arrowleft', 'ALT+Left'],
])('%s is asked for as %s', (key, trigger) => {
  expect(triggerOf(key)).toBe(trigger);
});

test('a press stills the screens and tells the page to choose on that picture', async () => {
  const id = await keyed('mod+alt+r');
  await works(id);
  expect(portal.press('CTRL+ALT+r')).toBe(1);
  const { choose, lines } = await until('the page', () => told.find((t) => t.choose));
  expect(choose).toMatchObject({ routine: id });
  expect(lines).toEqual([]);
  await until('the notice', () => portal.notices[0]);
  expect(heldStill(choose?.still ?? '')).toMatchObject({ width: 40, height: 30 });
});

test('the desktop is asked again only when the keys change, and old ones are let go', async () => {
  const id = await keyed('mod+alt+r');
  await works(id);
  const before = [...portal.keys.keys()];
  await watchKeys();
  expect([...portal.keys.keys()]).toEqual(before);
  await changeRoutine(id, { systemKey: 'mod+alt+t' });
  await watchKeys();
  await works(id);
  await until('the old key to go', () => portal.keys.size === 1);
  expect(portal.press('CTRL+ALT+r')).toBe(0);
  await removeRoutine(id);
  await watchKeys();
  await until('all keys to go', () => portal.keys.size === 0);
});

test('what the desktop does not give is said beside the routine', async () => {
  portal.withheld = ['CTRL+ALT+r'];
  const id = await keyed('mod+alt+r');
  expect(await until('words', () => systemKeyProblem(id))).toBe(
    'The desktop is being asked for this key.',
  );
  await until('words', () => systemKeyProblem(id) === 'The desktop did not give this key.');
  portal.keyCode = 1;
  await changeRoutine(id, { systemKey: 'mod+alt+t' });
  await watchKeys();
  await until(
    'words',
    () => systemKeyProblem(id) === 'The desktop was told to give Rezzik no keys.',
  );
});

test('a picture that is not allowed is said, and nothing is to be chosen', async () => {
  const id = await keyed('mod+alt+r');
  await works(id);
  const { manner } = portal;
  portal.manner = () => ({ code: 1 });
  portal.press('CTRL+ALT+r');
  const { lines, choose } = await until('words', () => told[0]);
  portal.manner = manner;
  expect(choose).toBeUndefined();
  const words = 'Not taken. The desktop was told not to give a picture to Rezzik.';
  expect(lines).toEqual([words]);
  // The page is told first; the desktop's own notice must not fall into the next test.
  await until('the notice', () => portal.notices.some((n) => n.includes(words)));
});

test('where a page is told, the desktop says so; where none can be opened, it says where to choose', async () => {
  const id = await keyed('mod+alt+r');
  await works(id);
  portal.press('CTRL+ALT+r');
  expect(await until('a notice', () => portal.notices[0])).toContain('Choose in Rezzik');
  // Nobody listens any more, and what opens addresses has no browser to open them in.
  stop.abort();
  const opener = join(folder, 'xdg-open');
  writeFileSync(opener, '#!/bin/sh\nexit 3\n', { mode: 0o755 });
  const path = process.env.PATH;
  process.env.PATH = `${folder}:${path ?? ''}`;
  portal.press('CTRL+ALT+r');
  const said = await until('another notice', () => portal.notices[1]);
  process.env.PATH = path;
  const still = /still=([0-9a-f-]{36})/.exec(said)?.[1] ?? '';
  expect(said).toMatch(/^The picture is still\. Open http:\/\/127\.0\.0\.1:\d+\/take\?routine=/);
  expect(heldStill(still)).toMatchObject({ width: 40 });
});

test('without leave no key is asked for', async () => {
  await changeSettings({ displayAllowed: false });
  const id = await keyed('mod+alt+r');
  expect(systemKeyProblem(id)).toContain('Allow it in Setup');
  expect(portal.keys.size).toBe(0);
  await changeSettings({ displayAllowed: true });
});
