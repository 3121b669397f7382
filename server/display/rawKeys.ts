import type { RawInput, XEvent } from 'x11';
import { ask, askMaybe, type Screen } from './connection';
import { MEANT } from './keyboard';

/** AllMasterDevices (XI2.h): each press is told once, whichever keyboard it came from. */
const MASTERS = 1;
const REPEATED = 1 << 16;

/** Of the keys that change the meaning of others, those that are down. */
interface Held {
  /** The bit of each such key. */
  bits: Map<number, number>;
  down: Set<number>;
}

/** What is heard of keys besides our grabs. */
export interface RawKeys {
  /** Whether anything is heard at all: nothing is while no routine has a system key. */
  listen: (on: boolean) => Promise<void>;
}

/**
 * Hears keys that no grab of ours hears, because another program holds the keyboard for a menu of
 * its own: X tells of them all the same (XInput 2.1, raw events). What else is typed is not kept.
 * @param isWanted of a key's number
 * @param pressed is called with its number and the modifiers held
 */
export async function rawKeys(
  screen: Screen,
  isWanted: (code: number) => boolean,
  pressed: (code: number, modifiers: number) => void,
): Promise<RawKeys> {
  const { X, root } = screen;
  const input = await askMaybe<RawInput>((done) => X.require('xinput', done));
  if (!input?.xi2) return { listen: () => Promise.resolve() };
  const held: Held = { bits: new Map(), down: new Set() };
  let last = { code: 0, time: 0 };
  X.on('event', (event) => {
    const { name, detail, keycode, time, flags } = event;
    if (name === 'XIRawKeyRelease') held.down.delete(detail);
    // While a grab of our own is held, keys are told as its events alone.
    if (name === 'KeyRelease') held.down.delete(keycode);
    if (name === 'KeyPress') {
      last = { code: keycode, time };
      if (held.bits.has(keycode)) held.down.add(keycode);
    }
    if (name !== 'XIRawKeyPress') return;
    if (held.bits.has(detail)) held.down.add(detail);
    else if (isWanted(detail) && !(flags & REPEATED)) void heard(event);
  });
  const heard = async ({ detail, time }: XEvent): Promise<void> => {
    const modifiers = bitsOf(held);
    // What our own grabs or windows hear of this press is told before an answer.
    const answered = await askMaybe((done) => X.GetInputFocus(done)).catch(() => null);
    if (answered && !(last.code === detail && last.time === time)) pressed(detail, modifiers);
  };
  return {
    async listen(on) {
      held.bits = await modifierBits(screen);
      const mask = on ? ['RawKeyPress', 'RawKeyRelease'] : [];
      input.XISelectEvents(root, { deviceId: MASTERS, mask });
    },
  };
}

const bitsOf = ({ bits, down }: Held): number =>
  [...down].reduce((sum, code) => sum | (bits.get(code) ?? 0), 0) & MEANT;

/** The bit of each key that changes the meaning of others, by its number. Row by row the keys of Shift, Lock, Control and Mod1 to Mod5; 0 is none. */
export async function modifierBits({ X }: Pick<Screen, 'X'>): Promise<Map<number, number>> {
  const rows = await ask<number[][]>((done) => X.GetModifierMapping(done));
  const all = rows.flatMap((codes, row) => codes.map((code) => [code, 1 << row] as const));
  return new Map(all.filter(([code]) => code !== 0));
}
