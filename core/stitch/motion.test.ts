import { describe, expect, test } from '@jest/globals';
import { addAll, joiner, one } from '@/tests/lib/joining';
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
  WHITE,
  WIDTH,
  writing,
} from '@/tests/lib/scrolled';
import type { Frame } from './frame';

/** By one step of 255 in each colour. */
const faintlyDarker = (word: number): number =>
  [0, 8, 16].reduce((so, by) => (((word >> by) & 255) > 0 ? so - (1 << by) : so), word);

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

  test('a head that differs a little each time, as on fractional screens, is never laid on the page', () => {
    const to = joiner();
    const offsets = steps(800, 100);
    const restless = offsets.map((y, i) => {
      const frame = framed(y);
      fill(frame, { x: 0, y: 0, width: WIDTH, height: HEAD }, ink(0x3f4a1d));
      fill(frame, { x: 0, y: 0, width: WIDTH, height: 1 }, ink(0x3f4a1d + i));
      writing(frame, { x: 20, y: 16, width: 150, height: LINE }, 9000 + i);
      return frame;
    });
    addAll(to, restless);
    const height = inside.height + 800;
    const [had, truth] = [blank(WIDTH, height), blank(WIDTH, height)];
    put(had, one(to), { x: 0, y: 0 }, { x: 0, y: HEAD, width: WIDTH, height });
    put(truth, page, { x: 0, y: 0 }, { x: 0, y: 0, width: WIDTH, height });
    expect(different(had, truth)).toBe(0);
  });

  test('a faint shadow below a head never covers what was seen without it', () => {
    const SHADOW = 12;
    const shaded = (y: number): Frame => {
      const frame = framed(y);
      const [from, to] = [HEAD * WIDTH, (HEAD + SHADOW) * WIDTH];
      for (let at = from; at < to; at += 1)
        frame.words[at] = faintlyDarker(frame.words[at] as number);
      return frame;
    };
    const to = joiner();
    const offsets = [...steps(60, 2), ...steps(240, 40).map((y) => 80 + y)];
    addAll(to, offsets.map(shaded));
    const last = Math.max(...offsets);
    const middle = { x: 0, y: HEAD + SHADOW, width: WIDTH, height: inside.height + last - SHADOW };
    const part = (of: Frame): Frame => {
      const cut = blank(WIDTH, middle.height);
      put(cut, of, { x: 0, y: 0 }, middle);
      return cut;
    };
    const truth = blank(WIDTH, HEIGHT + last);
    put(truth, page, { x: 0, y: HEAD }, { x: 0, y: 0, width: WIDTH, height: inside.height + last });
    expect(different(part(one(to)), part(truth))).toBe(0);
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
