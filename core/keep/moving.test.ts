import { expect, test } from '@jest/globals';
import { joined, latin } from './bytes';
import { commentOf } from './gifComment';
import { LOOKED_AT, movingFacts, type MovingForm } from './moving';
import { iTXt } from './pngText';

const words = { title: 'Beds', description: 'Four beds — seen from above.' };

/** A file with what is said in it, as it is written over the file before. */
function saidIn(form: MovingForm, file: Uint8Array, said = words): Uint8Array {
  const ends = {
    length: file.length,
    first: file.subarray(0, LOOKED_AT.first),
    last: file.subarray(-LOOKED_AT.last),
  };
  return movingFacts(form, ends, said).reduce((before, { at, bytes }) => {
    const after = new Uint8Array(Math.max(before.length, at + bytes.length));
    after.set(before);
    after.set(bytes, at);
    return after;
  }, file);
}

const gif = joined([latin('GIF89a'), new Uint8Array(40), Uint8Array.of(0x3b)]);
const iend = Uint8Array.of(0, 0, 0, 0, 0x49, 0x45, 0x4e, 0x44, 0xae, 0x42, 0x60, 0x82);
const png = joined([new Uint8Array(60), iend]);
/** VP8X with an animation (RFC 9649, 2.7), 18 bytes, and one chunk that is not looked at. */
const webp = joined([
  ...[latin('RIFF'), Uint8Array.of(34, 0, 0, 0), latin('WEBPVP8X'), Uint8Array.of(10, 0, 0, 0)],
  ...[Uint8Array.of(0x02), new Uint8Array(9), latin('ANIM'), Uint8Array.of(4, 0, 0, 0)],
  new Uint8Array(4),
]);

test('in a GIF a comment comes before the trailer, in blocks of 255 bytes at most', () => {
  expect(commentOf('Beds')).toEqual(Uint8Array.of(0x21, 0xfe, 4, 66, 101, 100, 115, 0));
  const long = commentOf('x'.repeat(600));
  expect([long[2], long[3 + 255], long[4 + 510], long.at(-1)]).toEqual([255, 255, 90, 0]);
  const said = saidIn('gif', gif);
  expect(said.subarray(0, gif.length - 1)).toEqual(gif.subarray(0, -1));
  expect(said.subarray(gif.length - 1, -1)).toEqual(
    commentOf(`${words.title}\n${words.description}`),
  );
  expect(said.at(-1)).toBe(0x3b);
});

test('in a PNG texts come before the end', () => {
  const said = saidIn('apng', png, { ...words, title: '' });
  const text = iTXt('Description', words.description);
  expect(said).toEqual(joined([png.subarray(0, 60), text, iend]));
});

test('in a WebP a packet comes last; its header says so, and how long the file is', () => {
  const said = saidIn('webp', webp);
  const view = new DataView(said.buffer);
  expect(view.getUint32(4, true)).toBe(said.length - 8);
  expect(said[20]).toBe(0x02 | 0x04);
  const packet = new TextDecoder().decode(said.subarray(webp.length));
  expect(packet.slice(0, 4)).toBe('XMP ');
  expect(packet).toContain(words.description);
  expect(said.length % 2).toBe(0);
});

test('without words, and in a file that is not what it should be, nothing is changed', () => {
  expect(saidIn('gif', gif, { title: '', description: '' })).toEqual(gif);
  for (const form of ['gif', 'apng', 'webp'] as const) {
    const other = new Uint8Array(80);
    expect(saidIn(form, other)).toEqual(other);
    expect(saidIn(form, Uint8Array.of(1))).toEqual(Uint8Array.of(1));
  }
});
