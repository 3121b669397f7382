import x11, { type Geometry, type RawInput, type XEvent } from 'x11';
import { keyWords, type KeyName } from '@/core/clip/pressed';
import type { PressedName } from '@/core/contracts/way';
import { watchSecret } from '../accessibility/secret';
import { env } from '../base/env';
import { ask, askMaybe, ownConnection, type Screen } from './connection';
import { modifierBits } from './rawKeys';

/** What a hand did: when, ms since 1970, and where on the display or which key. */
export type PressedThere = { when: number } & ({ x: number; y: number } | { key: string });

/** AllMasterDevices (XI2.h), as rawKeys.ts has it. */
const MASTERS = 1;
const REPEATED = 1 << 16;
/** Those that click; the others are wheels. */
const BUTTONS = 3;
/** Bits of what is held (X11 protocol, KEYBUTMASK): Mod1 is Alt, Mod2 Num Lock, Mod4 Super, Mod5 the third level. */
const HELD = { shift: 1, lock: 2, ctrl: 4, alt: 8, num: 16, meta: 64, third: 128 };
/** Where it says which of several layouts is in use (X Keyboard Extension, §2.2.2). */
const GROUP = 3 << 13;
/** A field that gets the focus with this very press has told of it by then, ms. */
const TOLD = 150;

/** By the names that X gives them (X11 keysymdef.h), what UI Events calls them. */
const named: Record<string, string> = {
  ...{ Return: 'Enter', KP_Enter: 'Enter', Escape: 'Escape', BackSpace: 'Backspace' },
  ...{ Tab: 'Tab', ISO_Left_Tab: 'Tab', Delete: 'Delete', Insert: 'Insert' },
  ...{ Home: 'Home', End: 'End', Page_Up: 'PageUp', Page_Down: 'PageDown' },
  ...{ Left: 'ArrowLeft', Up: 'ArrowUp', Right: 'ArrowRight', Down: 'ArrowDown' },
  ...{ KP_Left: 'ArrowLeft', KP_Up: 'ArrowUp', KP_Right: 'ArrowRight', KP_Down: 'ArrowDown' },
  ...{ KP_Home: 'Home', KP_End: 'End', KP_Prior: 'PageUp', KP_Next: 'PageDown' },
  ...{ KP_Insert: 'Insert', KP_Delete: 'Delete' },
  ...Object.fromEntries(Array.from({ length: 24 }, (_, i) => [`F${i + 1}`, `F${i + 1}`])),
};
const names = new Map(
  Object.entries(named).flatMap(([name, key]) => {
    const code = x11.keySyms[`XK_${name}`]?.code;
    return code === undefined ? [] : [[code, key] as const];
  }),
);

const KEYPAD = { from: 0xff95, to: 0xff9f };
/** Signs of the keypad, from * on, by their places in ASCII. */
const KEYPAD_SIGNS = { from: 0xffaa, to: 0xffb9, by: 0xff80 };
const UNICODE = 0x1000000;

/** The sign of a keysym, by its number (X11 keysymdef.h, on Unicode); null for one that has none. */
function signOf(keysym: number): string | null {
  if ((keysym >= 0x20 && keysym <= 0x7e) || (keysym >= 0xa0 && keysym <= 0xff))
    return String.fromCharCode(keysym);
  if (keysym >= KEYPAD_SIGNS.from && keysym <= KEYPAD_SIGNS.to)
    return String.fromCharCode(keysym - KEYPAD_SIGNS.by);
  if (keysym === x11.keySyms.XK_EuroSign?.code) return '€';
  return keysym > UNICODE + 0xff && keysym <= UNICODE + 0x10ffff
    ? String.fromCodePoint(keysym - UNICODE)
    : null;
}

/** Which keysym of a key is meant. @param row of its levels, two a group, then the third level */
function keysymOf(row: readonly number[], held: number): number {
  const group = 2 * Math.min(1, (held >> 13) & 3);
  const base = held & HELD.third && row[4] ? 4 : row[group] ? group : 0;
  const [plain = 0, shifted = 0] = row.slice(base, base + 2);
  if (plain >= KEYPAD.from && plain <= KEYPAD.to) return held & HELD.num ? shifted : plain;
  const sign = signOf(plain);
  const isLetter = sign !== null && sign.toLowerCase() !== sign.toUpperCase();
  const isShifted = Boolean(held & HELD.shift) !== (isLetter && Boolean(held & HELD.lock));
  return isShifted && shifted ? shifted : plain;
}

/** A press by the names of UI Events; null for a key that changes others, or that nobody names. */
export function keyNameOf(row: readonly number[], held: number): KeyName | null {
  const keysym = keysymOf(row, held);
  const key = names.get(keysym) ?? signOf(keysym);
  if (key === null) return null;
  const is = (bit: number) => Boolean(held & bit);
  return {
    key,
    ...{ ctrl: is(HELD.ctrl), alt: is(HELD.alt), shift: is(HELD.shift), meta: is(HELD.meta) },
  };
}

/** No event is heard so late, ms: then one of the clocks was put on. */
const LATE = 2_000;

/** Events carry the time of the display, which no busy process delays. */
class DisplayClock {
  /** Of the clock before that of the display, ms, as little as was seen. */
  private ahead = Infinity;

  /** @param time of an event, ms @returns ms since 1970 */
  at(time: number): number {
    const ahead = Date.now() - time;
    // It stands while the computer sleeps, and begins anew every fifty days.
    if (ahead > this.ahead + LATE) this.ahead = Infinity;
    this.ahead = Math.min(this.ahead, ahead);
    return this.ahead + time;
  }
}

interface Watch extends Pick<Screen, 'X' | 'root'> {
  /** Of keys that change others, their bits, and those that are down. */
  bits: Map<number, number>;
  down: Set<number>;
  clock: DisplayClock;
  rows: number[][];
  first: number;
  heard: (pressed: PressedThere) => unknown;
  isSecret: () => boolean;
}

/**
 * Hears clicks and keys on the display, whichever program they go to (XInput 2.1, raw events). What
 * goes into a field for a password is not told of, as far as its program says that it is one.
 * @returns how to stop; where the display tells of nothing, nothing is heard
 */
export async function watchPressed(
  wanted: readonly PressedName[],
  heard: (pressed: PressedThere) => void,
): Promise<() => void> {
  const { display } = env();
  if (wanted.length === 0 || display === null) return () => undefined;
  const { X, root, keycodes } = await ownConnection(display);
  const secret = wanted.includes('keys') ? watchSecret() : null;
  let isOn = true;
  const stop = () => {
    isOn = false;
    secret?.stop();
    if (!X.stream.destroyed) X.terminate();
  };
  const input = await askMaybe<RawInput>((done) => X.require('xinput', done));
  const { first, last } = keycodes;
  const readRows = () =>
    ask<number[][]>((done) => X.GetKeyboardMapping(first, last - first + 1, done));
  const watch: Watch = {
    ...{ X, root, first, rows: await readRows() },
    ...{ bits: await modifierBits({ X }), down: new Set<number>(), clock: new DisplayClock() },
    heard: (pressed) => isOn && heard(pressed),
    isSecret: () => secret?.isSecret() ?? false,
  };
  X.on('event', (event) => {
    // Another layout: a key may mean something else now.
    if (event.name === 'MappingNotify')
      void readRows()
        .then((rows) => (watch.rows = rows))
        .catch(() => undefined);
    if (event.name === 'XIRawButtonPress' && event.detail <= BUTTONS) void clicked(watch, event);
    if (event.name === 'XIRawKeyRelease') watch.down.delete(event.detail);
    if (event.name === 'XIRawKeyPress' && !(event.flags & REPEATED)) void typed(watch, event);
  });
  const mask = [
    ...(wanted.includes('clicks') ? ['RawButtonPress'] : []),
    ...(wanted.includes('keys') ? ['RawKeyPress', 'RawKeyRelease'] : []),
  ];
  if (input?.xi2) input.XISelectEvents(root, { deviceId: MASTERS, mask });
  return stop;
}

/** Where the pointer is and over what, and what is held, of which raw events tell nothing. */
const around = ({ X, root }: Watch) =>
  askMaybe<{ rootX: number; rootY: number; child: number; keyMask: number }>((done) =>
    X.QueryPointer(root, done),
  ).catch(() => null);

/**
 * A window lies over everything that no window manager has put there: the screen is locked, or all
 * that is typed is for something that does not show it.
 */
async function isCovered({ X, root }: Watch, top: number): Promise<boolean> {
  if (top === 0) return false;
  const size = (drawable: number) =>
    askMaybe<Geometry>((done) => X.GetGeometry(drawable, done)).catch(() => null);
  const attributes = askMaybe<{ overrideRedirect: number }>((done) =>
    X.GetWindowAttributes(top, done),
  ).catch(() => null);
  const [whole, own, told] = await Promise.all([size(root), size(top), attributes]);
  return Boolean(
    whole &&
    own &&
    told?.overrideRedirect &&
    own.width >= whole.width &&
    own.height >= whole.height,
  );
}

async function clicked(watch: Watch, { time }: XEvent): Promise<void> {
  const when = watch.clock.at(time);
  const found = await around(watch);
  if (found) watch.heard({ when, x: found.rootX, y: found.rootY });
}

async function typed(watch: Watch, { detail, time }: XEvent): Promise<void> {
  const when = watch.clock.at(time);
  const wasSecret = watch.isSecret();
  const { bits, down } = watch;
  // Whoever types fast has let go of Shift before it could be asked for.
  const held = [...down].reduce((sum, code) => sum | (bits.get(code) ?? 0), 0);
  if (bits.has(detail)) down.add(detail);
  const found = await around(watch);
  const still = found ? found.keyMask & (HELD.lock | HELD.num | GROUP) : 0;
  const name = keyNameOf(watch.rows[detail - watch.first] ?? [], held | still);
  const key = name && keyWords(name);
  if (!key || (found && (await isCovered(watch, found.child)))) return;
  await new Promise((resolve) => setTimeout(resolve, TOLD));
  if (!wasSecret && !watch.isSecret()) watch.heard({ when, key });
}
