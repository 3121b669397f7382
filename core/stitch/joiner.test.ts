import { describe, expect, test } from '@jest/globals';
import { addAll, joiner, one } from '@/tests/lib/joining';
import {
  blank,
  different,
  fill,
  HEIGHT,
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
import { Joiner } from './joiner';

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
