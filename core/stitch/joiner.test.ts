import { describe, expect, test } from '@jest/globals';
import {
  blank,
  different,
  fill,
  HEIGHT,
  ink,
  LINE,
  longPage,
  numberedList,
  put,
  seen,
  steps,
  WHITE,
  WIDTH,
  writing,
} from '@/tests/lib/scrolled';
import type { Frame } from './frame';
import { Joiner, type Added } from './joiner';

const joiner = (waits = false) => new Joiner({ width: WIDTH, height: HEIGHT }, { waits });

/** Adds frames one after the other. */
const addAll = (to: Joiner, frames: readonly Frame[]): Added[] => frames.map((f) => to.add(f));

const one = (to: Joiner): Frame => {
  const [only, ...more] = to.joined();
  if (!only || more.length > 0) throw new Error(`There are ${more.length + 1} pieces.`);
  return only;
};

describe('a list whose lines are alike but for their numbers', () => {
  const page = numberedList(WIDTH, 70);
  const end = page.height - HEIGHT;

  test.each([50, 110, 150, 190, 210])('is joined to the pixel, %d pixels at a time', (by) => {
    for (const offsets of [steps(end, by), steps(end, by).map((y) => end - y)]) {
      const to = joiner();
      for (const y of offsets) expect(to.add(seen(page, y))).toMatch(/first|joined/);
      const top = Math.min(...offsets);
      const height = Math.max(...offsets) - top + HEIGHT;
      expect(different(one(to), seen(page, top, height))).toBe(0);
    }
  });

  test.each([410, 430, 500, 570, 610, 700])(
    'scrolled too far by %d it is a gap, not a guess',
    (by) => {
      for (const offsets of [steps(end, by), steps(end, by).map((y) => end - y)]) {
        const to = joiner();
        const [first, ...others] = addAll(
          to,
          offsets.map((y) => seen(page, y)),
        );
        expect([first, ...new Set(others)]).toEqual(['first', 'apart']);
      }
    },
  );
});

describe('a page that is scrolled', () => {
  const page = longPage(WIDTH, 1600);

  test.each([7, 53, 120, 200, 270])('down by %d pixels is joined to the pixel', (by) => {
    const to = joiner();
    const offsets = steps(1600 - HEIGHT, by);
    const added = addAll(
      to,
      offsets.map((y) => seen(page, y)),
    );
    expect(added).toEqual(['first', ...offsets.slice(1).map(() => 'joined')]);
    expect(different(one(to), seen(page, 0, HEIGHT + Math.max(...offsets)))).toBe(0);
  });

  test('up, and down again further than it began', () => {
    const to = joiner();
    addAll(
      to,
      [600, 500, 380, 480, 620, 800].map((y) => seen(page, y)),
    );
    expect(different(one(to), seen(page, 380, 820))).toBe(0);
  });

  test('a frame seen twice says nothing new', () => {
    const to = joiner();
    expect(addAll(to, [seen(page, 0), seen(page, 0), seen(page, 90), seen(page, 90)])).toEqual([
      ...['first', 'same', 'joined', 'same'],
    ]);
    expect(to.shift).toBe(90);
  });

  test('what holds more than a picture may is left out, and said', () => {
    const most = { side: 700, pixels: 1e9 };
    const to = new Joiner({ width: WIDTH, height: HEIGHT }, { waits: false, most });
    expect(addAll(to, [seen(page, 0), seen(page, 200), seen(page, 350)])).toEqual([
      ...['first', 'joined', 'full'],
    ]);
    expect(one(to).height).toBe(600);
  });

  test('a frame of another size is refused', () => {
    expect(() => joiner().add(blank(WIDTH, 10))).toThrow(RangeError);
  });
});

describe('what stays put', () => {
  const HEAD = 50;
  const FOOT = 34;
  const inside = { top: HEAD, height: HEIGHT - HEAD - FOOT };
  const page = longPage(WIDTH, 1400, 77);

  /** A window with a head and a foot, its page scrolled. */
  function framed(y: number): Frame {
    const frame = blank(WIDTH, HEIGHT, ink(0xe9efe7));
    put(frame, page, { x: 0, y: HEAD }, { x: 0, y, width: WIDTH, height: inside.height });
    writing(frame, { x: 20, y: 16, width: 300, height: LINE }, 9000);
    writing(frame, { x: 20, y: HEIGHT - 26, width: 200, height: LINE }, 9001);
    return frame;
  }

  test.each([20, 90, 160])('a head and a foot are there once, scrolled by %d', (by) => {
    const to = joiner();
    const offsets = steps(1400 - inside.height, by);
    expect(addAll(to, offsets.map(framed)).slice(1)).toEqual(offsets.slice(1).map(() => 'joined'));
    const last = Math.max(...offsets);
    const truth = blank(WIDTH, HEIGHT + last);
    put(truth, framed(0), { x: 0, y: 0 }, { x: 0, y: 0, width: WIDTH, height: HEAD });
    put(truth, page, { x: 0, y: HEAD }, { x: 0, y: 0, width: WIDTH, height: inside.height + last });
    const foot = { x: 0, y: HEIGHT - FOOT, width: WIDTH, height: FOOT };
    put(truth, framed(last), { x: 0, y: HEIGHT - FOOT + last }, foot);
    expect(different(one(to), truth)).toBe(0);
  });

  test('a bar at the side is there once, its ground goes on', () => {
    const BAR = 112;
    const ground = ink(0xdce9e2);
    const framedAt = (y: number): Frame => {
      const frame = blank(WIDTH, HEIGHT, ground);
      const width = WIDTH - BAR;
      put(frame, page, { x: BAR, y: 0 }, { x: 0, y, width, height: HEIGHT });
      for (let i = 0; i < 8; i += 1)
        writing(frame, { x: 10, y: 10 + i * 40, width: 90, height: LINE }, 700 + i);
      return frame;
    };
    const to = joiner();
    addAll(to, steps(900, 150).map(framedAt));
    const truth = blank(WIDTH, HEIGHT + 900, ground);
    put(truth, framedAt(0), { x: 0, y: 0 }, { x: 0, y: 0, width: BAR, height: HEIGHT });
    put(truth, page, { x: BAR, y: 0 }, { x: 0, y: 0, width: WIDTH - BAR, height: HEIGHT + 900 });
    expect(different(one(to), truth)).toBe(0);
  });

  test('what lies over the page is there once, where it was last seen', () => {
    const button = { x: WIDTH - 100, y: HEIGHT - 60, width: 80, height: 40 };
    const withButton = (y: number): Frame => {
      const frame = seen(page, y);
      fill(frame, button, ink(0x5e8c79));
      writing(frame, { x: button.x + 10, y: button.y + 10, width: 60, height: LINE }, 4);
      return frame;
    };
    const to = joiner();
    addAll(to, steps(900, 100).map(withButton));
    const truth = seen(page, 0, HEIGHT + 900);
    put(truth, withButton(900), { ...button, y: button.y + 900 }, button);
    expect(different(one(to), truth)).toBe(0);
  });

  test('a caret that blinks and a picture that moves hinder nothing', () => {
    const restless = (y: number, i: number): Frame => {
      const frame = seen(page, y);
      fill(frame, { x: 30, y: 600 - y, width: 2, height: 16 }, i % 2 ? WHITE : ink(0));
      fill(frame, { x: 200, y: 700 - y, width: 120, height: 90 }, ink(i * 0x102030));
      return frame;
    };
    const to = joiner();
    expect(addAll(to, steps(900, 100).map(restless)).slice(1)).toEqual(
      Array.from({ length: 9 }, () => 'joined'),
    );
    const joined = one(to);
    fill(joined, { x: 30, y: 600, width: 2, height: 16 }, WHITE);
    const truth = seen(page, 0, HEIGHT + 900);
    for (const picture of [joined, truth])
      for (const box of [
        { x: 30, y: 600, width: 2, height: 16 },
        { x: 200, y: 700, width: 120, height: 90 },
      ])
        fill(picture, box, WHITE);
    expect(different(joined, truth)).toBe(0);
  });

  test.each([40, 110])('a picture that comes late is there in the end, scrolled by %d', (by) => {
    const picture = { x: 120, y: 520, width: 200, height: 140 };
    const late = (y: number, i: number): Frame => {
      const frame = seen(page, y);
      fill(frame, { ...picture, y: picture.y - y }, i < 3 ? ink(0xeeeeee) : ink(0x5e8c79));
      return frame;
    };
    const to = joiner();
    const offsets = steps(900, by);
    addAll(to, offsets.map(late));
    const truth = seen(page, 0, HEIGHT + Math.max(...offsets));
    fill(truth, picture, ink(0x5e8c79));
    expect(different(one(to), truth)).toBe(0);
  });

  test('what was caught half painted is there whole once it stands still', () => {
    const to = joiner(true);
    const whole = seen(page, 500);
    const half = seen(page, 500);
    fill(half, { x: 0, y: HEIGHT - 60, width: WIDTH, height: 60 }, WHITE);
    expect(addAll(to, [seen(page, 0), seen(page, 250), half, whole, whole, whole])).toEqual([
      ...['first', 'joined', 'joined', 'same', 'renewed', 'same'],
    ]);
    expect(different(one(to), seen(page, 0, HEIGHT + 500))).toBe(0);
    to.add(seen(page, 650));
    expect(different(one(to), seen(page, 0, HEIGHT + 650))).toBe(0);
  });

  test('a page that was never scrolled is had as it came to stand', () => {
    const to = joiner(true);
    const early = seen(page, 0);
    fill(early, { x: 40, y: 40, width: 100, height: 60 }, WHITE);
    addAll(to, [early, seen(page, 0), seen(page, 0)]);
    expect(different(one(to), seen(page, 0))).toBe(0);
  });

  test('something that moves on a page nobody scrolls is nothing new', () => {
    const to = joiner();
    const frames = [0, 1, 2].map((i) => {
      const frame = seen(page, 0);
      fill(frame, { x: 100, y: 100, width: 120, height: 60 }, ink(i * 0x102030));
      return frame;
    });
    expect(addAll(to, frames)).toEqual(['first', 'same', 'same']);
  });
});

describe('what cannot be known', () => {
  const page = longPage(WIDTH, 2400, 31);

  test('scrolled too far is a piece of its own; scrolling back makes it one', () => {
    const to = joiner(true);
    const far = seen(page, 900);
    expect(addAll(to, [seen(page, 0), seen(page, 150), far, far])).toEqual([
      ...['first', 'joined', 'unclear', 'apart'],
    ]);
    expect(to.pieces).toEqual([
      { frames: 2, width: WIDTH, height: HEIGHT + 150 },
      { frames: 1, width: WIDTH, height: HEIGHT },
    ]);
    const [upper, lower] = to.joined();
    expect(upper && different(upper, seen(page, 0, HEIGHT + 150))).toBe(0);
    expect(lower && different(lower, far)).toBe(0);
    addAll(
      to,
      [700, 500, 350].map((y) => seen(page, y)),
    );
    expect(different(one(to), seen(page, 0, HEIGHT + 900))).toBe(0);
  });

  test('back at once to what was had, the gap is none', () => {
    const to = joiner(true);
    expect(
      addAll(
        to,
        [0, 150, 900, 200].map((y) => seen(page, y)),
      ),
    ).toEqual([...['first', 'joined', 'unclear', 'joined']]);
    expect(one(to).height).toBe(HEIGHT + 200);
  });

  test('pictures that hang together in no way are no page: after a dozen no more are taken', () => {
    const to = joiner();
    const added = addAll(
      to,
      Array.from({ length: 14 }, (_, i) => longPage(WIDTH, HEIGHT, 1000 * (i + 1))),
    );
    expect(added).toEqual(['first', ...Array.from({ length: 11 }, () => 'apart'), 'full', 'full']);
    expect(to.pieces).toHaveLength(12);
  });

  test('rows that are all alike are never laid on each other by chance', () => {
    const alike = blank(WIDTH, 1600);
    for (let y = 0; y < 1600; y += LINE) writing(alike, { x: 24, y, width: 400, height: LINE }, 12);
    const to = joiner();
    const added = addAll(
      to,
      [0, 47, 94].map((y) => seen(alike, y)),
    );
    expect(added).not.toContain('joined');
  });

  test('what is there twice is not taken for once, where it was scrolled too far', () => {
    const twice = longPage(WIDTH, 2400, 90);
    const picture = longPage(WIDTH, 220, 7_000);
    for (const y of [560, 1400])
      put(twice, picture, { x: 0, y }, { x: 0, y: 0, width: WIDTH, height: 220 });
    // Both times the picture is all there, and lines that differ stand above and below it.
    const to = joiner();
    expect(addAll(to, [seen(twice, 470), seen(twice, 1270)])).toEqual(['first', 'apart']);
  });

  test('a blank stretch as high as what is seen is said, not guessed', () => {
    const holed = longPage(WIDTH, 2400, 8);
    fill(holed, { x: 0, y: 500, width: WIDTH, height: 900 }, WHITE);
    const to = joiner();
    const added = addAll(
      to,
      [0, 200, 400, 600, 800, 1000, 1200].map((y) => seen(holed, y)),
    );
    expect(added.slice(0, 3)).toEqual(['first', 'joined', 'joined']);
    expect(to.pieces.length).toBeGreaterThan(1);
  });
});
