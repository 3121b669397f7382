import { describe, expect, test } from '@jest/globals';
import {
  blank,
  different,
  fill,
  HEIGHT,
  ink,
  LINE,
  longPage,
  put,
  seen,
  steps,
  WIDTH,
  writing,
} from '@/tests/lib/scrolled';
import { scrolledThing } from './area';
import { frameOf, transposed, type Frame } from './frame';
import { LongPage, scrolledPart } from './longPage';

const pixels = ({ words, width, height }: Frame) => ({
  data: new Uint8ClampedArray(words.buffer as ArrayBuffer),
  width,
  height,
});

const differentFrom = (long: LongPage, truth: Frame): number[] =>
  long.joined().map((picture) => different(frameOf(picture, 'down'), truth));

describe('which way', () => {
  const page = longPage(WIDTH, 1600);
  const wide = transposed(page);
  const across = (x: number): Frame => {
    const frame = blank(HEIGHT, WIDTH);
    put(frame, wide, { x: 0, y: 0 }, { x, y: 0, width: HEIGHT, height: WIDTH });
    return frame;
  };

  test('comes out by itself: across', () => {
    const long = new LongPage({ width: HEIGHT, height: WIDTH }, { waits: false });
    const added = steps(600, 100).map((x) => long.add(pixels(across(x))));
    expect(added).toEqual(['first', ...Array.from({ length: 6 }, () => 'joined')]);
    expect(long.progress).toEqual({
      axis: 'across',
      shift: 100,
      // The first two pixels are blank.
      part: { x: 2, y: 0, width: HEIGHT - 2, height: WIDTH },
      pieces: [{ frames: 7, size: { width: HEIGHT + 600, height: WIDTH } }],
    });
    const truth = blank(HEIGHT + 600, WIDTH);
    put(truth, wide, { x: 0, y: 0 }, { x: 0, y: 0, width: HEIGHT + 600, height: WIDTH });
    expect(differentFrom(long, truth)).toEqual([0]);
  });

  test('comes out by itself: down', () => {
    const long = new LongPage({ width: WIDTH, height: HEIGHT }, { waits: false });
    for (const y of [0, 80, 160]) long.add(pixels(seen(page, y)));
    expect(long.progress).toMatchObject({ axis: 'down', shift: 80 });
    expect(differentFrom(long, seen(page, 0, HEIGHT + 160))).toEqual([0]);
    const [small] = long.reduced(4, 10_000).map((picture) => frameOf(picture, 'down'));
    const everyFourth = blank(WIDTH / 4, (HEIGHT + 160) / 4);
    everyFourth.words.forEach((_, at) => {
      const x = at % everyFourth.width;
      everyFourth.words[at] = page.words[((at - x) / everyFourth.width) * 4 * WIDTH + x * 4] ?? 0;
    });
    expect(small && different(small, everyFourth)).toBe(0);
    const [end] = long.reduced(1, 450).map((picture) => frameOf(picture, 'down'));
    expect(end && different(end, seen(page, 110, 450))).toBe(0);
  });

  test('what is around it counts where it is not much larger', () => {
    const part = { x: 100, y: 140, width: 400, height: 300 };
    const window = { x: 100, y: 100, width: 400, height: 360 };
    const screen = { x: 0, y: 0, width: 900, height: 700 };
    expect(scrolledThing(part, [part, window, screen])).toEqual(window);
    expect(scrolledThing(part, [{ ...window, x: 120 }, screen])).toEqual(part);
  });

  test('a window that is scrolled is found on a whole screen, to the pixel', () => {
    const screen = (y: number): Frame => {
      const frame = blank(900, 700, ink(0xe3ddd0));
      writing(frame, { x: 40, y: 20, width: 800, height: LINE }, 1);
      fill(frame, { x: 99, y: 99, width: WIDTH + 2, height: HEIGHT + 2 }, ink(0x2b4a3f));
      put(frame, page, { x: 100, y: 100 }, { x: 0, y, width: WIDTH, height: HEIGHT });
      return frame;
    };
    const found = scrolledPart(pixels(screen(0)), pixels(screen(97)));
    expect(found).toMatchObject({ axis: 'down', shift: 97 });
    const { x, y, width, height } = found?.part ?? { x: 0, y: 0, width: 0, height: 0 };
    expect({ x, y, width, height }).toEqual({ x: 100, y: 100, width: WIDTH, height: HEIGHT });
    expect(scrolledPart(pixels(screen(0)), pixels(screen(0)))).toBeNull();
  });
});
