import { expect, test } from '@jest/globals';
import { randomFrom } from '@/core/random/random';
import { Held, type Look } from './held';

const ROW = 40;
const ROWS = 30;
const free = { most: 1e9, longest: 10_000 };

/** A picture in which something was drawn: runs, single words, and the largest words there are. */
function drawnOn(before: Uint32Array, next: () => number): Uint32Array {
  const pixels = before.slice();
  for (let i = 0; i < 3; i += 1) {
    const at = Math.floor(next() * pixels.length);
    pixels.fill(next() * 2 ** 32, at, at + Math.floor(next() * 90));
    pixels[Math.floor(next() * pixels.length)] = 0xffff_ffff;
  }
  return pixels;
}

/** Pictures, each drawn on the one before. */
function pictures(count: number, seed: number): Uint32Array[] {
  const next = randomFrom(seed);
  const all: Uint32Array[] = [new Uint32Array(ROW * ROWS)];
  while (all.length < count) all.push(drawnOn(all.at(-1) ?? new Uint32Array(), next));
  return all;
}

const look = (pixels: Uint32Array, more?: Partial<Look>): Look => ({
  ...{ pixels, row: ROW, shape: String(pixels.length), ...more },
});

/** Pictures shown one after the other, 200 ms apart. */
function shown(all: readonly Uint32Array[], bounds = free): Held<number> {
  const held = new Held<number>(bounds);
  all.forEach((pixels, i) => held.add(i * 200, look(pixels), i));
  return held;
}

const isSame = (a: Uint32Array | undefined, b: Uint32Array | undefined): boolean =>
  a !== undefined && a.length === b?.length && a.every((word, i) => word === b[i]);

test('every moment is as it was, to the last bit', () => {
  for (const seed of [1, 2, 3]) {
    const all = pictures(50, seed);
    const held = shown(all);
    const moments = held.moments();
    expect(moments.length).toBe(50);
    for (const { id, facts, since } of moments) {
      expect(since).toBe(facts * 200);
      expect(isSame(held.find(id)?.pixels, all[facts])).toBe(true);
    }
    const walked = [...held.backwards()].map(({ id }) => id);
    expect(walked).toEqual(moments.map(({ id }) => id).reverse());
  }
});

test('a look like the one before is no moment of its own', () => {
  const held = new Held<string>(free);
  const still = new Uint32Array(ROW * ROWS).fill(4);
  expect(held.add(0, look(still), 'first')).toBe(true);
  expect(held.add(200, look(still.slice()), 'second')).toBe(false);
  expect(held.moments()).toEqual([{ id: 1, since: 0, until: null, facts: 'first' }]);
});

test('a part alone can come: the rest is as before', () => {
  const held = new Held<null>(free);
  const pixels = new Uint32Array(ROW * ROWS);
  const shape = 'screen';
  held.add(0, look(pixels, { shape }), null);
  const after = pixels.slice();
  after.fill(7, ROW * 4 + 3, ROW * 6 - 2);
  const from = ROW * 4;
  const part = after.slice(from, ROW * 6);
  expect(held.add(1, look(part, { shape, from }), null)).toBe(true);
  expect(held.add(2, look(part, { shape, from }), null)).toBe(false);
  expect(isSame(held.find(1)?.pixels, pixels)).toBe(true);
  expect(isSame(held.find(2)?.pixels, after)).toBe(true);
  expect(() => held.add(3, look(pixels, { shape, from }), null)).toThrow('another size');
});

test('what stood ten seconds ago is still held, what was gone by then is not', () => {
  const held = shown(pictures(100, 4));
  const now = 99 * 200;
  const [oldest] = held.moments();
  expect(oldest?.until).toBeGreaterThan(now - 10_000);
  expect(oldest?.since).toBeLessThanOrEqual(now - 10_000);
  // A screen that stands still for a minute: its look is the only one there is.
  held.forget(now + 60_000);
  expect(held.moments().map(({ facts }) => facts)).toEqual([99]);
});

test('bytes are bounded: the time is shortened, and that can be told', () => {
  const most = ROW * ROWS * 4 + 60_000;
  const all = pictures(50, 5);
  const held = new Held<number>({ most, longest: 10_000 });
  expect(held.isShortened(0)).toBe(false);
  all.forEach((pixels, i) => {
    held.add(i * 200, look(pixels), i);
    expect(held.bytes).toBeLessThanOrEqual(most);
  });
  expect(held.isShortened(50 * 200)).toBe(true);
  const moments = held.moments();
  expect(moments.length).toBeGreaterThan(2);
  expect(moments.length).toBeLessThan(50);
  for (const { id, facts } of moments) expect(isSame(held.find(id)?.pixels, all[facts])).toBe(true);
  // Once there was room for all of the time again, nobody is told any more.
  expect(held.isShortened(50 * 200 + 10_000)).toBe(false);
});

test('bytes that are let go are not counted any more', () => {
  const held = shown(pictures(1, 6));
  const one = held.bytes;
  pictures(30, 6).forEach((pixels, i) => held.add(200 + i, look(pixels), i));
  expect(held.bytes).toBeGreaterThan(one);
  held.forget(1e9);
  expect(held.bytes).toBe(one);
});

test('a screen that gets another size keeps what it was before', () => {
  const held = new Held<string>(free);
  const [a, b, c] = [pictures(3, 8), pictures(2, 9), new Uint32Array(7)] as const;
  a.forEach((pixels, i) => held.add(i * 200, look(pixels), `a${i}`));
  held.add(600, look(c), 'c');
  // Of the same length, yet laid out otherwise.
  b.forEach((pixels, i) => held.add(800 + i * 200, look(pixels, { shape: 'turned' }), `b${i}`));
  const said = held.moments().map(({ id, facts, since, until }) => [id, facts, since, until]);
  expect(said).toEqual([
    [1, 'a0', 0, 200],
    [2, 'a1', 200, 400],
    [3, 'a2', 400, 600],
    [4, 'c', 600, 800],
    [5, 'b0', 800, 1000],
    [6, 'b1', 1000, null],
  ]);
  expect(isSame(held.find(2)?.pixels, a[1])).toBe(true);
  expect(held.find(4)).toMatchObject({ shape: '7', pixels: c });
  expect(isSame(held.find(5)?.pixels, b[0])).toBe(true);
  held.forget(10_700);
  expect(held.moments().map(({ facts }) => facts)).toEqual(['c', 'b0', 'b1']);
  held.forget(99_999);
  expect(held.moments().map(({ facts }) => facts)).toEqual(['b1']);
});

test('a look too large for all room is held alone', () => {
  const all = pictures(3, 10);
  const held = shown(all, { most: 100, longest: 10_000 });
  expect(held.moments().map(({ facts }) => facts)).toEqual([2]);
  expect(isSame(held.find(3)?.pixels, all[2])).toBe(true);
  expect(held.find(1)).toBeNull();
});
