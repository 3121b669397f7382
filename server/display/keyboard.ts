import { Fault } from '../base/fault';
import { ask, type Screen } from './connection';
import { keysymOf, namedKeys } from '../base/keyNames';

/** Modifier bits of the X protocol. */
const modifiers: Record<string, number> = { shift: 1, mod: 4, alt: 8 };
/** Caps Lock and Num Lock must not matter. */
const LOCKS = [0, 2, 16, 18];
export const MEANT = 1 | 4 | 8 | 64;

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
  const codeNamed = (name: string): number | null => {
    const keysym = keysymOf(name);
    return keysym === null ? null : codeOf(keysym);
  };
  const letters = [...'abcdefghijklmnopqrstuvwxyz0123456789'];
  const names = new Map([...namedKeys, ...letters].map((name) => [codeNamed(name), name]));
  return {
    combination(key) {
      const parts = key.split('+');
      const code = codeNamed(parts.at(-1) || '+');
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
