import type { Stretch } from '../values/stretch';

/** What a hand did while a clip was recorded: a click somewhere on its pictures, or a key. */
export interface Click {
  /** Seconds from the start of the film. */
  at: number;
  /** On its pictures, px. */
  x: number;
  y: number;
}
export interface KeyPress {
  at: number;
  /** As `keyWords` writes it. */
  key: string;
}
export type Pressed = Click | KeyPress;

/** Of one press, by the names of UI Events (W3C, KeyboardEvent.key). */
export interface KeyName {
  key: string;
  ctrl: boolean;
  alt: boolean;
  shift: boolean;
  /** The key with the sign of the system. */
  meta: boolean;
}

/** How named keys stand on a keyboard. */
const written: Record<string, string> = {
  ...{ Escape: 'Esc', Delete: 'Del', Insert: 'Ins', PageUp: 'Page up', PageDown: 'Page down' },
  ...{ ArrowLeft: '←', ArrowUp: '↑', ArrowRight: '→', ArrowDown: '↓' },
  ...{ Enter: 'Enter', Tab: 'Tab', Backspace: 'Backspace', Home: 'Home', End: 'End' },
};
const FUNCTION_KEY = /^F\d{1,2}$/;

/**
 * A press as it is written for whoever looks on: a sign stands for itself, and what is held before
 * it is named. @returns null for what nobody would name, such as Shift alone
 */
export function keyWords({ key, ctrl, alt, shift, meta }: KeyName): string | null {
  const isSign = [...key].length === 1;
  const named = written[key] ?? (FUNCTION_KEY.test(key) ? key : null);
  if (!isSign && named === null) return null;
  const held = [ctrl && 'Ctrl', alt && 'Alt', meta && 'Super'].filter(Boolean);
  // What Shift does to a sign is seen.
  if (shift && (!isSign || held.length > 0)) held.push('Shift');
  const sign = key === ' ' && held.length > 0 ? 'Space' : held.length > 0 ? key.toUpperCase() : key;
  return [...held, isSign ? sign : named].join('+');
}

/** A click is seen for so long, seconds. */
const RING = 0.6;
/** What was typed is seen for so long after its last key, and goes on as long as no pause is longer, s. */
const LABEL = 1.5;
const PAUSE = 0.7;
/** Letters that are shown at once. */
const MOST = 40;

/** The number of the picture that is seen at a moment. @param times of the pictures, s, ascending */
function pictureAt(times: readonly number[], at: number): number {
  let [low, high] = [0, times.length - 1];
  while (low < high) {
    const middle = Math.ceil((low + high) / 2);
    if ((times[middle] ?? 0) <= at) low = middle;
    else high = middle - 1;
  }
  return low;
}

/** The pictures of a span of time, at least one. */
function stretchOf(times: readonly number[], from: number, to: number): Stretch {
  const first = pictureAt(times, from);
  return { from: first, to: Math.max(first + 1, pictureAt(times, to) + 1) };
}

export type SeenClick = Click & { time: Stretch };

/** On which pictures each click is seen. @param times of the pictures, s, ascending */
export const clicksSeen = (
  pressed: readonly Pressed[],
  times: readonly number[],
): readonly SeenClick[] =>
  pressed.flatMap((one) =>
    'key' in one ? [] : [{ ...one, time: stretchOf(times, one.at, one.at + RING) }],
  );

export interface SeenKeys {
  text: string;
  time: Stretch;
}

interface Unit {
  text: string;
  /** When its last key was pressed. */
  at: number;
  /** Which of those that no long pause parts. */
  run: number;
}

interface Last {
  key: string;
  at: number;
  /** How often in a row; 0 for a sign. */
  count: number;
}

/** Signs typed one after the other are one unit, as is each other key, however often it is pressed. */
function unitsOf(pressed: readonly Pressed[]): Unit[] {
  const units: Unit[] = [];
  let last: Last = { key: '', at: -Infinity, count: 0 };
  for (const one of pressed) {
    if (!('key' in one)) continue;
    const { key, at } = one;
    const isSoon = at - last.at <= PAUSE;
    const isSign = [...key].length === 1;
    const before = units.at(-1);
    const count = isSign ? 0 : isSoon && last.key === key ? last.count + 1 : 1;
    const isSameWord = isSoon && isSign && last.count === 0 && last.key !== ' ';
    if (before && count > 1) Object.assign(before, { text: `${key} × ${count}`, at });
    else if (before && isSameWord && key !== ' ' && [...before.text].length < MOST)
      Object.assign(before, { text: before.text + key, at });
    else if (key !== ' ') units.push({ text: key, at, run: (before?.run ?? 0) + (isSoon ? 0 : 1) });
    last = { key, at, count };
  }
  return units;
}

/** Each with as many of its run before it as can be read with it. */
function grown(units: readonly Unit[]): string[] {
  const texts: string[] = [];
  units.forEach(({ text, run }, i) => {
    const all = `${texts[i - 1] ?? ''} ${text}`;
    const isSameRun = units[i - 1]?.run === run;
    texts.push(isSameRun && [...all].length <= MOST ? all : text);
  });
  return texts;
}

/**
 * Keys as they are shown: what is typed without a pause grows word by word, each seen once it is
 * typed; a named key, or one with others held, stands for itself, and how often where it is pressed
 * again. What comes next takes its place.
 * @param times of the pictures, s, ascending
 */
export function keysSeen(
  pressed: readonly Pressed[],
  times: readonly number[],
): readonly SeenKeys[] {
  const units = unitsOf(pressed);
  const texts = grown(units);
  return units.flatMap(({ at }, i) => {
    const next = units[i + 1];
    const time = stretchOf(times, at, at + LABEL);
    const to = Math.min(time.to, next ? pictureAt(times, next.at) : Infinity);
    // Two on one picture: the later one is seen.
    return to > time.from ? [{ text: texts[i] ?? '', time: { ...time, to } }] : [];
  });
}
