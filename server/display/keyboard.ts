import { Fault } from '../base/fault';
import { ask, type Screen } from './connection';

/** Modifier bits of the X protocol. */
const modifiers: Record<string, number> = { shift: 1, mod: 4, alt: 8 };
/** Caps Lock and Num Lock must not matter. */
const LOCKS = [0, 2, 16, 18];
export const MEANT = 1 | 4 | 8 | 64;

/** Keysyms by the names that keys have in Setup (X11 keysymdef.h). */
const keysyms: Record<string, number> = {
  enter: 0xff0d,
  escape: 0xff1b,
  space: 0x20,
  backspace: 0xff08,
  tab: 0xff09,
  insert: 0xff63,
  delete: 0xffff,
  printscreen: 0xff61,
  pause: 0xff13,
  home: 0xff50,
  end: 0xff57,
  pageup: 0xff55,
  pagedown: 0xff56,
  arrowleft: 0xff51,
  arrowup: 0xff52,
  arrowright: 0xff53,
  arrowdown: 0xff54,
};

function keysymOf(name: string): number | null {
  const number = /^f(\d{1,2})$/.exec(name)?.[1];
  if (number) return 0xffbd + Number(number);
  if (name.length === 1) return name.charCodeAt(0);
  return keysyms[name] ?? null;
}

export interface Combination {
  code: number;
  modifiers: number;
}

/** Keys of a display by name, and names by key. */
export interface Keyboard {
  /** Null when this keyboard has no such key. */
  combination: (key: string) => Combination | null;
  nameOf: (code: number) => string | undefined;
}

export async function readKeyboard({ X, keycodes }: Screen): Promise<Keyboard> {
  const { first, last } = keycodes;
  const map = await ask<number[][]>((done) => X.GetKeyboardMapping(first, last - first + 1, done));
  // A column is a level of a group of the layout: the first in which a sign is, is where it lies.
  const columns = Math.max(...map.map((row) => row.length));
  const places = new Map<number, number>();
  for (let column = 0; column < columns; column += 1) {
    map.forEach((row, i) => {
      const keysym = row[column];
      if (keysym && !places.has(keysym)) places.set(keysym, i + first);
    });
  }
  const codeOf = (keysym: number): number | null => places.get(keysym) ?? null;
  const letters = [...'abcdefghijklmnopqrstuvwxyz0123456789'].map(
    (name) => [name, name.charCodeAt(0)] as const,
  );
  const names = new Map(
    [...Object.entries(keysyms), ...letters].map(([name, keysym]) => [codeOf(keysym), name]),
  );
  return {
    combination(key) {
      const parts = key.split('+');
      const keysym = keysymOf(parts.at(-1) || '+');
      const code = keysym === null ? null : codeOf(keysym);
      if (code === null) return null;
      const bits = parts.slice(0, -1).reduce((sum, part) => sum | (modifiers[part] ?? 0), 0);
      return { code, modifiers: bits };
    },
    nameOf: (code) => names.get(code),
  };
}

/** Takes a key for Rezzik wherever the focus is. @returns false when another program has it */
export async function grab(
  { X, root }: Screen,
  { code, modifiers: bits }: Combination,
): Promise<boolean> {
  const tries = LOCKS.map((lock) =>
    ask<unknown>((done) => X.GrabKey(root, 0, bits | lock, code, 1, 1, done)).then(
      () => true,
      (error: unknown) => {
        // A display that does not answer is another matter.
        if (error instanceof Fault) throw error;
        return false;
      },
    ),
  );
  return (await Promise.all(tries)).every(Boolean);
}

export function ungrab({ X, root }: Screen, { code, modifiers: bits }: Combination): void {
  if (X.stream.destroyed) return;
  for (const lock of LOCKS) X.UngrabKey(root, code, bits | lock);
}
