import { expect, test } from '@jest/globals';
import { randomFrom } from '../random/random';
import { filmHead, joined, pictureHead } from './matroska';
import { MatroskaPictures } from './matroskaPictures';

const size = { width: 640, height: 360 };
const setup = Uint8Array.of(1, 66, 0, 30, 255);

/** Pictures of some lengths, among them none, and those whose length takes more than one byte. */
const pictures = [5, 0, 127, 128, 70_000, 1].map((length, n) =>
  Uint8Array.from({ length }, (_, i) => (i * 7 + n) % 256),
);
const film = joined([
  filmHead(size, { packed: 'h264', setup }),
  ...pictures.flatMap((picture, i) => [
    pictureHead({ at: 67 * i, lasts: 67, length: picture.length, isKey: i % 2 === 0 }),
    picture,
  ]),
]);

test('pictures are read as they were written, in whichever pieces they come', () => {
  const random = randomFrom(3);
  for (const most of [film.length, 9_000, 700, 3]) {
    const reader = new MatroskaPictures();
    const read: Uint8Array[] = [];
    for (let at = 0; at < film.length;) {
      const to = Math.min(film.length, at + 1 + Math.floor(random() * most));
      read.push(...reader.read(film.subarray(at, to)));
      at = to;
    }
    expect(read).toEqual(pictures);
    expect(reader.setup).toEqual(setup);
  }
});

test('what is handed on is not changed by what comes after it', () => {
  const reader = new MatroskaPictures();
  const piece = film.slice();
  const [first] = reader.read(piece);
  piece.fill(0);
  expect(first).toEqual(pictures[0]);
});

test('a film of VP9 says nothing beforehand', () => {
  const reader = new MatroskaPictures();
  reader.read(filmHead(size, { packed: 'vp9', setup: null }));
  expect(reader.setup).toBeNull();
});

test('pictures that build on others say so, those that can be begun with do not', () => {
  const head = (isKey: boolean): string =>
    Buffer.from(pictureHead({ at: 5, lasts: 9, length: 1, isKey })).toString('hex');
  // ReferenceBlock (RFC 9559, §5.1.3.5.5): the id, a length of 1 in eight bytes, −1.
  const builds = 'fb0100000000000001ff';
  expect(head(false)).toContain(builds);
  expect(head(true)).not.toContain('fb01');
});
