import { expect, test } from '@jest/globals';
import { randomFrom } from '@/core/random/random';
import { mostPacked, packChange, same, undoChange } from './change';

const ROW = 10;

/** What a change is packed into, checked for its room. */
function packed(before: Uint32Array, after: Uint32Array, from = 0, row = ROW): Uint32Array {
  const room = new Uint32Array(mostPacked(after.length, row));
  const used = packChange(before, after, { row, from, same }, room);
  expect(used).toBeLessThanOrEqual(room.length);
  return room.slice(0, used);
}

const words = (length: number, word: (i: number) => number) =>
  Uint32Array.from({ length }, (_, i) => word(i));

test('what a change has replaced comes back, whatever it was', () => {
  const next = randomFrom(7);
  for (let round = 0; round < 400; round += 1) {
    const length = Math.floor(next() * 90) + 1;
    const flat = next();
    const before = words(length, () => (next() < flat ? 5 : next() * 2 ** 32));
    const from = Math.floor((next() * length) / ROW) * ROW;
    const same = next();
    const end = from + Math.ceil(next() * (length - from));
    const after = before
      .slice(from, end)
      .map((word) => (next() < same ? word : next() < 0.5 ? 9 : next() * 2 ** 32));
    const change = packed(before, after, from);
    const now = before.slice();
    now.set(after, from);
    undoChange(change, now);
    expect(now).toEqual(before);
    expect(change.length === 0).toBe(after.every((word, i) => word === before[from + i]));
  }
});

test('its room is enough for the worst there is', () => {
  const other = new Uint32Array(700).fill(1);
  // All single; single ones far apart; runs just long enough, with a single word between.
  packed(
    words(700, (i) => i + 2),
    other,
  );
  packed(
    words(700, (i) => (i % 4 === 0 ? i + 2 : 1)),
    other,
  );
  packed(
    words(700, (i) => (i % 7 === 6 ? i + 2 : 100 + Math.floor(i / 7))),
    other,
  );
});

test('what repeats is packed small, what is the same is not packed', () => {
  expect(packed(new Uint32Array(500).fill(3), new Uint32Array(500), 0, 500).length).toBe(3);
  expect(packed(new Uint32Array(500), new Uint32Array(500)).length).toBe(0);
  const caret = new Uint32Array(500);
  caret[77] = 4;
  expect([...packed(caret, new Uint32Array(500))]).toEqual([77, 1, 4]);
});

test('what was scrolled, either way, is said by where it is now, and comes back', () => {
  const [row, rows] = [40, 60];
  const page = words(row * rows * 2, (i) => (i * 2_654_435_761) % 4_294_967_291);
  for (const by of [7, -7, 1, -20]) {
    const before = page.slice(row * 30, row * (30 + rows));
    const after = page.slice(row * (30 + by), row * (30 + by + rows));
    // A column that stays, and a caret that does not.
    for (let i = 0; i < before.length; i += row) before[i] = after[i] = i;
    after[row * 30 + 5] = 1;
    const change = packed(before, after, 0, row);
    // What went out of sight is packed, and the row in which the caret stood.
    expect(change.length).toBeLessThan((Math.abs(by) + 1) * (row + 2) + rows * 3);
    const now = after.slice();
    undoChange(change, now);
    expect(now).toEqual(before);
  }
});

test('what was not packed by us is refused, not written beyond its place', () => {
  expect(() => undoChange(Uint32Array.of(2, 9, 1), new Uint32Array(4))).toThrow('packed');
  expect(() => undoChange(Uint32Array.of(1, 0), new Uint32Array(4))).toThrow('packed');
});
