import { expect, test } from '@jest/globals';
import { randomFrom } from '../random/random';
import { filmHead, joined, pictureHead } from './matroska';
import { isMatroska, MatroskaTimes } from './matroskaTimes';

const size = { width: 640, height: 360 };
const whenever = [0, 67, 133, 1_000, 70_000, 599_990];
const film = joined([
  filmHead(size, { packed: 'vp9', setup: null }),
  ...whenever.flatMap((at, i) => [
    pictureHead({ at, lasts: 67, length: 3_000 * i, isKey: i === 0 }),
    new Uint8Array(3_000 * i).fill(0xa3),
  ]),
]);
const seconds = whenever.map((at) => at / 1000);

test('the times of pictures are read in whichever pieces they come', () => {
  const random = randomFrom(5);
  for (const most of [film.length, 9_000, 300, 2]) {
    const reader = new MatroskaTimes();
    for (let at = 0; at < film.length;) {
      const to = Math.min(film.length, at + 1 + Math.floor(random() * most));
      const piece = film.slice(at, to);
      reader.read(piece);
      piece.fill(0);
      at = to;
    }
    expect(reader.times).toEqual(seconds);
  }
});

// By RFC 9559, §5.1: Segment, Info with TimestampScale; Tracks; a Cluster with SimpleBlocks.
const hex = (words: string): Uint8Array => Buffer.from(words.replace(/\s/g, ''), 'hex');
const sounding = hex(`
  1a45dfa3 80
  18538067 01ffffffffffffff
  1549a966 87 2ad7b1 83 0186a0
  1654ae6b 90
    ae 86 83 81 02 d7 81 01
    ae 86 d7 81 02 83 81 01
  1f43b675 01ffffffffffffff
    e7 82 2710
    a3 85 81 0000 80 00
    a3 85 82 0000 80 00
    a3 85 81 0005 80 00
    a3 85 82 fff6 00 00
    a0 89 a1 85 82 0064 00 00 9b 81`);

test('of several tracks that of the pictures counts, in the unit that the film says', () => {
  const reader = new MatroskaTimes();
  reader.read(sounding);
  // 100 000 ns a unit: the cluster begins after a second.
  expect(reader.times).toEqual([1, 0.999, 1.01]);
});

test('of a file that lies with a million elements no more is read', () => {
  const reader = new MatroskaTimes();
  reader.read(film);
  // Void elements without content (RFC 8794, §11.3.2).
  const voids = new Uint8Array(2_000_000).map((_, i) => (i % 2 === 0 ? 0xec : 0x80));
  reader.read(voids);
  reader.read(film);
  expect(reader.times).toEqual(seconds);
});

test('what is no such film has no pictures, and is told from one', () => {
  expect(isMatroska(film)).toBe(true);
  const other = Buffer.from('\0\0\0\x20ftypisom');
  expect(isMatroska(other)).toBe(false);
  const reader = new MatroskaTimes();
  for (let i = 0; i < 200; i += 1) reader.read(other);
  expect(reader.times).toEqual([]);
});
