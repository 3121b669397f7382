import { describe, expect, test } from '@jest/globals';
import { decodeBmp } from './decode';
import { bmpHeader, BmpProblem } from './header';

interface Made {
  size?: number;
  width: number;
  height: number;
  bits: number;
  compression?: number;
  /** Blue, green, red and one byte more. */
  palette?: number[][];
  colours?: number;
  /** Behind a header of 40 bytes, in one of more. */
  masks?: number[];
  pixels: number[];
  start?: number;
}

/** A file of Windows: every number as it is said. */
function made(of: Made): Uint8Array {
  const { size = 40, width, height, bits, compression = 0, palette = [], masks = [], pixels } = of;
  const header = new Uint8Array(14 + Math.max(size, 40 + masks.length * 4));
  const view = new DataView(header.buffer);
  const entries = palette.flat();
  header.set([0x42, 0x4d]);
  view.setUint32(10, of.start ?? header.length + entries.length, true);
  view.setUint32(14, size, true);
  view.setInt32(18, width, true);
  view.setInt32(22, height, true);
  view.setUint16(26, 1, true);
  view.setUint16(28, bits, true);
  view.setUint32(30, compression, true);
  view.setUint32(46, of.colours ?? palette.length, true);
  masks.forEach((mask, i) => view.setUint32(54 + 4 * i, mask, true));
  return Uint8Array.from([...header, ...entries, ...pixels]);
}

/** Red, green, blue of each pixel, row by row; with opacity where it says something. */
function seen(file: Uint8Array): number[][][] {
  const { data, width, height, opaque } = decodeBmp(file);
  return Array.from({ length: height }, (_, y) =>
    Array.from({ length: width }, (_unused, x) => {
      const at = (y * width + x) * 4;
      return [...data.subarray(at, at + (opaque ? 3 : 4))];
    }),
  );
}

const RED = [255, 0, 0];
const GREEN = [0, 255, 0];
const BLUE = [0, 0, 255];
const WHITE = [255, 255, 255];
const BLACK = [0, 0, 0];
const four = [
  [0, 0, 255, 0],
  [0, 255, 0, 0],
  [255, 0, 0, 0],
  [255, 255, 255, 0],
];

describe('with a palette', () => {
  test.each([
    [1, [0b0100_0000, 0, 0, 0, 0b1010_0000, 0, 0, 0]],
    [4, [0x01, 0x00, 0, 0, 0x10, 0x10, 0, 0]],
    [8, [0, 1, 0, 0, 1, 0, 1, 0]],
  ])('of %d bits a pixel, the lowest row first', (bits, pixels) => {
    const file = made({ width: 3, height: 2, bits, palette: four.slice(0, 2), pixels });
    expect(seen(file)).toEqual([
      [GREEN, RED, GREEN],
      [RED, GREEN, RED],
    ]);
  });

  test('the highest row first where the height is below nothing', () => {
    const pixels = [0, 0, 0, 0, 1, 0, 0, 0];
    const file = made({ width: 1, height: -2, bits: 8, palette: four, pixels });
    expect(seen(file)).toEqual([[RED], [GREEN]]);
  });

  test('a colour that the palette does not have is black', () => {
    const file = made({ width: 2, height: 1, bits: 8, palette: four, pixels: [3, 200, 0, 0] });
    expect(seen(file)).toEqual([[WHITE, BLACK]]);
  });

  test('of OS/2, with three bytes a colour', () => {
    const header = [0x42, 0x4d, 0, 0, 0, 0, 0, 0, 0, 0, 32, 0, 0, 0];
    const core = [12, 0, 0, 0, 2, 0, 1, 0, 1, 0, 1, 0];
    const file = [...header, ...core, 0, 255, 0, 255, 0, 0, 0b0100_0000, 0, 0, 0];
    expect(seen(Uint8Array.from(file))).toEqual([[GREEN, BLUE]]);
  });
});

describe('with masks', () => {
  const word = (value: number) => [value & 255, value >> 8];

  // Five bits are spread over 0–255: 31 is white, 16 is 132 (16 · 255 / 31).
  test('16 bits are five for each colour, if nothing else is said', () => {
    const pixels = [...word(0x7fff), ...word(16 << 10), ...word(1), ...word(0)];
    expect(seen(made({ width: 3, height: 1, bits: 16, pixels }))).toEqual([
      [WHITE, [132, 0, 0], [0, 0, 8]],
    ]);
  });

  test('or what the masks say', () => {
    const masks = [0xf800, 0x7e0, 0x1f];
    const pixels = [...word(0xffff), ...word(0x20), 0, 0, 0, 0];
    const file = made({ width: 2, height: 1, bits: 16, compression: 3, masks, pixels });
    expect(seen(file)).toEqual([[WHITE, [0, 4, 0]]]);
  });

  test('32 bits with masks in any order, and opacity where a later header has it', () => {
    const masks = [0xff, 0xff00, 0xff0000, 0xff000000];
    const pixels = [9, 8, 7, 128, 1, 2, 3, 255];
    const file = made({ size: 56, width: 2, height: 1, bits: 32, compression: 3, masks, pixels });
    expect(seen(file)).toEqual([
      [
        [9, 8, 7, 128],
        [1, 2, 3, 255],
      ],
    ]);
  });

  test('the fourth byte is opacity only where some of it is set', () => {
    const plain = { width: 2, height: 1, bits: 32 };
    expect(seen(made({ ...plain, pixels: [0, 0, 255, 0, 0, 255, 0, 0] }))).toEqual([[RED, GREEN]]);
    expect(seen(made({ ...plain, pixels: [0, 0, 255, 9, 0, 255, 0, 0] }))).toEqual([
      [
        [...RED, 9],
        [...GREEN, 0],
      ],
    ]);
  });

  test('24 bits', () => {
    const pixels = [0, 0, 255, 255, 0, 0, 0, 0];
    expect(seen(made({ width: 2, height: 1, bits: 24, pixels }))).toEqual([[RED, BLUE]]);
  });
});

describe('in runs', () => {
  const eight = (pixels: number[], width = 4, height = 2) =>
    made({ width, height, bits: 8, compression: 1, palette: four, pixels });

  test('of 8 bits: repeated, as they are, row by row', () => {
    const pixels = [4, 1, 0, 0, 0, 3, 2, 1, 0, 0, 1, 3, 0, 1];
    expect(seen(eight(pixels))).toEqual([
      [BLUE, GREEN, RED, WHITE],
      [GREEN, GREEN, GREEN, GREEN],
    ]);
  });

  test('of 4 bits: two colours by turns', () => {
    const pixels = [5, 0x12, 0, 0, 0, 5, 0x01, 0x23, 0x10, 0, 0, 1];
    const file = made({ width: 5, height: 2, bits: 4, compression: 2, palette: four, pixels });
    expect(seen(file)).toEqual([
      [RED, GREEN, BLUE, WHITE, GREEN],
      [GREEN, BLUE, GREEN, BLUE, GREEN],
    ]);
  });

  test('what a jump leaves out has the first colour', () => {
    expect(seen(eight([1, 1, 0, 2, 2, 1, 1, 2, 0, 1]))).toEqual([
      [RED, RED, RED, BLUE],
      [GREEN, RED, RED, RED],
    ]);
  });

  test('of 24 bits, as OS/2 has them', () => {
    const pixels = [2, 255, 0, 0, 0, 0, 0, 3, 0, 0, 255, 0, 255, 0, 255, 255, 255, 0, 0, 1];
    const file = made({ size: 64, width: 3, height: 2, bits: 24, compression: 4, pixels });
    expect(seen(file)).toEqual([
      [RED, GREEN, WHITE],
      [BLUE, BLUE, BLACK],
    ]);
  });

  test.each([
    ['beyond the last row', [0, 0, 0, 0, 1, 1, 0, 1]],
    ['that is cut', [4, 1, 0, 0, 2]],
    ['of single pixels that is cut', [4, 1, 0, 0, 0, 4, 1]],
    ['missing', [4, 1, 0, 0]],
  ])('one %s is damage', (_, pixels) => {
    expect(() => decodeBmp(eight(pixels))).toThrow(BmpProblem);
  });

  test('one that goes on beyond its row ends with it', () => {
    expect(seen(eight([5, 1, 0, 0, 4, 2, 0, 1]))).toEqual([
      [BLUE, BLUE, BLUE, BLUE],
      [GREEN, GREEN, GREEN, GREEN],
    ]);
  });

  test('without an end mark it is whole where its rows are', () => {
    expect(seen(eight([4, 1, 0, 0, 4, 2]))[0]).toEqual([BLUE, BLUE, BLUE, BLUE]);
  });
});

describe('what is not read', () => {
  const problem = (file: Uint8Array): string | null | undefined => {
    try {
      bmpHeader(file);
    } catch (error) {
      return error instanceof BmpProblem ? error.unread : undefined;
    }
    return undefined;
  };

  test('is told by its kind', () => {
    const plain = { width: 1, height: 1, pixels: [0, 0, 0, 0] };
    expect(problem(made({ ...plain, bits: 24, compression: 4 }))).toBe('with a JPEG inside');
    expect(problem(made({ ...plain, bits: 0, compression: 5 }))).toBe('with a PNG inside');
    expect(problem(made({ ...plain, size: 64, bits: 1, compression: 3 }))).toBe(
      'packed as a fax is',
    );
  });

  test('from what is damaged', () => {
    const plain = { width: 1, height: 1, pixels: [0, 0, 0, 0] };
    expect(problem(made({ ...plain, bits: 7 }))).toBeNull();
    expect(problem(made({ ...plain, bits: 4, compression: 1 }))).toBeNull();
    expect(problem(made({ ...plain, size: 66, bits: 24 }))).toBeNull();
    expect(problem(made({ ...plain, width: -1, bits: 24 }))).toBeNull();
    expect(problem(made({ ...plain, bits: 24 }).subarray(0, 30))).toBeNull();
    expect(() => decodeBmp(made({ ...plain, height: 2, bits: 24 }))).toThrow(BmpProblem);
  });

  test('a colour profile is found where it lies', () => {
    const file = made({ size: 124, width: 1, height: 1, bits: 24, pixels: [0, 0, 0, 0, 5, 6, 7] });
    const view = new DataView(file.buffer);
    view.setUint32(14 + 56, 0x4d424544, true);
    view.setUint32(14 + 112, 124 + 4, true);
    view.setUint32(14 + 116, 3, true);
    expect([...(bmpHeader(file).profile ?? [])]).toEqual([5, 6, 7]);
    view.setUint32(14 + 116, 4, true);
    expect(bmpHeader(file).profile).toBeNull();
    const filled = new Uint8Array(10_000_000);
    filled.set(file);
    new DataView(filled.buffer).setUint32(14 + 116, 9_000_000, true);
    expect(bmpHeader(filled).profile).toBeNull();
  });
});
