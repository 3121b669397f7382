import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { setTimeout as pause } from 'node:timers/promises';
import { DescribingSession } from '@/tests/lib/describingSession';
import { XDisplay } from '@/tests/lib/xDisplay';
import { watchSecret } from '../accessibility/secret';
import { accessibilityBus, closeAccessibilityBus, whileWanted } from '../accessibility/bus';
import { closeSessionBus, sessionBus } from '../bus/bus';
import { valueOf } from '../bus/request';
import { ask, ownConnection } from '../display/connection';
import { keyNameOf, watchPressed } from '../display/pressed';

let display: XDisplay;
let session: DescribingSession;

beforeAll(async () => {
  display = await XDisplay.open(900, 700);
  // Without a graphics processor, as the makers of GTK 4 advise.
  Object.assign(process.env, { DISPLAY: display.name, GSK_RENDERER: 'cairo' });
  session = await DescribingSession.open();
}, 60_000);
afterAll(async () => {
  closeAccessibilityBus();
  closeSessionBus();
  await session.close();
  await display.close();
});

async function until(what: string, test: () => boolean): Promise<void> {
  for (let tries = 0; tries < 600; tries += 1) {
    if (test()) return;
    await pause(50);
  }
  throw new Error(`Not yet: ${what}`);
}

test('what goes into a field for a password is not heard; in a program that describes nothing, it is', async () => {
  display.start('gtk4-demo', '--run=password_entry');
  const form = String(await display.windowId('Choose a Password'));
  display.start('xterm', '-title', 'Bed list', '-e', 'sleep 600');
  const plain = String(await display.windowId('Bed list'));
  const heard: string[] = [];
  const secret = watchSecret();
  const stop = await watchPressed(['keys'], (one) => 'key' in one && heard.push(one.key));
  const type = (window: string, words: string) =>
    display.run('xdotool', 'windowactivate', '--sync', window, 'type', '--delay', '60', words);
  const goTo = (window: string) => display.run('xdotool', 'windowactivate', '--sync', window);
  /** Whoever listens hears a little later than the test that the field has lost the focus. */
  const typeUntilHeard = async (key: string) => {
    for (let tries = 0; !heard.includes(key) && tries < 100; tries += 1) {
      await type(plain, key);
      await pause(100);
    }
  };
  try {
    await goTo(form);
    await until('it says that it is one', secret.isSecret);
    await type(form, 'abc');
    await goTo(plain);
    await until('it has lost the focus', () => !secret.isSecret());
    await typeUntilHeard('d');
    await goTo(form);
    await until('it has the focus again', secret.isSecret);
    await type(form, 'fg');
    await goTo(plain);
    await until('it has lost the focus again', () => !secret.isSecret());
    await typeUntilHeard('h');
    expect([...new Set(heard)]).toEqual(['d', 'h']);
  } finally {
    stop();
    secret.stop();
  }
}, 120_000);

test('what is typed while a window lies over everything is not heard: the screen is locked', async () => {
  const heard: string[] = [];
  const stop = await watchPressed(['keys'], (one) => 'key' in one && heard.push(one.key));
  // Nothing is heard before it is known what has the focus.
  for (let tries = 0; tries < 100 && heard.length === 0; tries += 1) {
    await display.run('xdotool', 'key', 'z');
    await pause(200);
  }
  const { X, root } = await ownConnection(display.name);
  const cover = X.AllocID();
  X.CreateWindow(cover, root, 0, 0, 900, 700, 0, 0, 1, 0, { overrideRedirect: 1 });
  X.MapWindow(cover);
  await ask((done) => X.GetInputFocus(done));
  await display.run('xdotool', 'type', '--delay', '40', 'ab');
  X.DestroyWindow(cover);
  await ask((done) => X.GetInputFocus(done));
  await display.run('xdotool', 'key', 'c');
  await until('that is heard', () => heard.includes('c'));
  expect(heard.filter((key) => key !== 'z')).toEqual(['c']);
  stop();
  X.terminate();
}, 60_000);

test('programs go on telling until the last of those who asked them is done', async () => {
  const [bus, session] = [await accessibilityBus(), await sessionBus()];
  const isTold = async () => {
    const call = { destination: 'org.a11y.Bus', path: '/org/a11y/bus', signature: 'ss' };
    const get = { interface: 'org.freedesktop.DBus.Properties', member: 'Get' };
    const body = ['org.a11y.Status', 'IsEnabled'];
    return valueOf(await session.invoke<unknown>({ ...call, ...get, body }, { timeout: 3_000 }));
  };
  const begin = async () => {
    let end = (): void => undefined;
    let whole = Promise.resolve();
    await new Promise<void>((began) => {
      whole = whileWanted(bus, () => {
        began();
        return new Promise((done) => (end = done));
      });
    });
    return async () => {
      end();
      await whole;
    };
  };
  const endFirst = await begin();
  const endSecond = await begin();
  await endFirst();
  expect(await isTold()).toBe(true);
  await endSecond();
  expect(await isTold()).toBe(false);
}, 60_000);

const none = { ctrl: false, alt: false, shift: false, meta: false };
/** Columns of a key as X lists them (X11 keysymdef.h): two of a layout, two of the next, the third level. */
const rows = {
  a: [0x61, 0x41, 0x1000430, 0x1000410, 0xe6, 0xc6],
  four: [0x34, 0x24, 0x34, 0x24, 0x20ac, 0],
  seven: [0xff95, 0xffb7],
  tab: [0xff09, 0xfe20],
  shift: [0xffe1],
};

test.each([
  ['a', 0, 'a', none],
  ['a', 1, 'A', { ...none, shift: true }],
  ['a', 2, 'A', none],
  ['a', 3, 'a', { ...none, shift: true }],
  ['a', 1 << 13, 'а', none],
  ['a', 128, 'æ', none],
  ['four', 2, '4', none],
  ['four', 128, '€', none],
  ['seven', 0, 'Home', none],
  ['seven', 16, '7', none],
  ['tab', 1, 'Tab', { ...none, shift: true }],
  ['a', 4 | 8 | 64, 'a', { ctrl: true, alt: true, shift: false, meta: true }],
] as const)('the key %s with %d held is %s', (row, held, key, with_) => {
  expect(keyNameOf(rows[row], held)).toEqual({ key, ...with_ });
});

test('a key that changes others, or that there is not, is none', () => {
  expect([keyNameOf(rows.shift, 0), keyNameOf([], 0)]).toEqual([null, null]);
});
