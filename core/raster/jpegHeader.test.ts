import { describe, expect, test } from '@jest/globals';
import { unreadJpeg } from './jpegHeader';

/** A file up to its frame header, with tables before it (ITU-T T.81, B.2.2). */
const jpeg = (frame: number, bits: number, before: number[] = [0xff, 0xdb, 0, 3, 0]) =>
  Uint8Array.from([0xff, 0xd8, ...before, 0xff, frame, 0, 11, bits, 0, 9, 0, 9, 1, 1, 0x11, 0]);

describe('kinds of JPEG, by their frame header', () => {
  test.each([
    [0xc0, 8, null],
    [0xc2, 8, null],
    [0xc1, 12, 'a JPEG of 12 bits'],
    [0xc3, 8, 'a JPEG without loss'],
    [0xc5, 8, 'a JPEG in layers'],
  ])('%i of %i bits: %s', (frame, bits, kind) => {
    expect(unreadJpeg(jpeg(frame, bits))).toBe(kind);
  });

  test('bytes that fill up before a marker are passed over', () => {
    expect(unreadJpeg(jpeg(0xc3, 8, [0xff, 0xff, 0xff, 0xdb, 0, 3, 0]))).toBe(
      'a JPEG without loss',
    );
  });

  test('a file of nothing but markers is not read to its end', () => {
    const endless = new Uint8Array(200_000).fill(0xff);
    endless.set(jpeg(0xc3, 8), 199_000);
    expect(unreadJpeg(endless)).toBeNull();
  });

  test('what is cut off, or no JPEG, is of no kind', () => {
    expect(unreadJpeg(jpeg(0xc3, 8).subarray(0, 8))).toBeNull();
    expect(unreadJpeg(Uint8Array.of(1, 2, 3))).toBeNull();
  });
});
